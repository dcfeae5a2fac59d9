/** The live stream, also as React Router's client asks for it: it stays open for hours and holds no database. */
export const isStream = (path: string): boolean => /^\/live(\.data)?\/?$/.test(path);
