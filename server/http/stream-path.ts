/** The live stream: it stays open for hours and holds no database. */
export const isStream = (path: string): boolean => /^\/live\/?$/.test(path);
