import Papa from "papaparse";

/**
 * What a spreadsheet would take for a formula: marked as text with an apostrophe. A sign begins a formula unless the whole cell is a number,
 * as "-1+1" is none.
 */
const formula = /^[=@\t\r\n]|^[+-](?!(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$)/i;

/** A table for any spreadsheet: UTF-8, a header line, line ends by RFC 4180. */
export const csvText = (fields: readonly string[], data: readonly (readonly string[])[]): string =>
  `${Papa.unparse({ fields: [...fields], data: data.map((row) => [...row]) }, { escapeFormulae: formula, newline: "\r\n" })}\r\n`;

/** A table by its columns: the head of each, and what it says of a row. */
export function csvOf<Row>(
  columns: readonly (readonly [head: string, of: (row: Row) => string | null])[],
  rows: readonly Row[],
): string {
  return csvText(
    columns.map(([head]) => head),
    rows.map((row) => columns.map(([, of]) => of(row) ?? "")),
  );
}
