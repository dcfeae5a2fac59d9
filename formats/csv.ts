import Papa from "papaparse";

/** What a spreadsheet would take for a formula: marked as text with an apostrophe. A number with a sign is none. */
const formula = /^[=@\t\r]|^[+-](?![\d.])/;

/** A table as any spreadsheet opens it: UTF-8, a header, lines that end as RFC 4180 says. Cells hold text as it is to be read. */
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
