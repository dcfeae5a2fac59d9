import type { Row } from "./row";

/** A value as the text of a field; empty where there is none. */
export const text = (x: string | number | undefined): string => (x === undefined ? "" : String(x));

/** Whether something was typed. */
export const given = (x: string | undefined): boolean => (x ?? "").trim() !== "";

export const trimmed = (row: Row, key: string): string => (row[key] ?? "").trim();
