/** The encodings that a table is read by where it is not UTF-8. */
export const encodings = ["windows-1252", "utf-16le", "macintosh"] as const;
export type Encoding = (typeof encodings)[number] | "utf-8";

export const isEncoding = (text: string | undefined): text is Encoding =>
  text === "utf-8" || encodings.some((known) => known === text);
