/** What stands on a bottle's label. */
export const solutionCode = (number: number) => `S-${number}`;
