/** What is found by the first of several names that something goes by. */
export const firstOf = <T>(names: readonly string[], find: (name: string) => T | null): T | null =>
  names.map(find).find((found) => found !== null) ?? null;
