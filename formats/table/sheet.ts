import { type Result, success } from "~/core/result";
import { msg, type Phrase } from "~/core/text";
import { cellsOf } from "../readings-table";
import type { Encoding } from "./encodings";

/*
 * A table as it comes: from a file of a spreadsheet, as CSV, or pasted. All cells are text; what a formula shows is taken, and what looks
 * like a formula in a CSV stays text.
 */

export const mostRows = 10_000;
export const mostColumns = 60;
const mostCellCharacters = 1000;

export interface Sheet {
  readonly cells: readonly (readonly string[])[];
  /** In which row of its file each of them stands, from 1: empty ones are passed over, and counted. */
  readonly lines: readonly number[];
  /** True where a comma parts the columns, so that it is no decimal sign. */
  readonly commas: boolean;
}

/** Why a table cannot be read; `encoding` where somebody has to say which one it is in. */
export interface SheetProblem {
  readonly message: Phrase;
  readonly encoding?: true;
}

const tooManyRows = msg`The table has more than ${mostRows.toLocaleString("en")} rows: import it in parts`;

const problem = (message: Phrase): Result<never, SheetProblem> => ({ ok: false, problem: { message } });

/** Rows that hold something, all as wide as the widest; or why there are too many. */
function whole(cells: readonly (readonly string[])[], commas: boolean): Result<Sheet, SheetProblem> {
  const found = cells.map((row, i) => ({ row, line: i + 1 }));
  const filled = found.filter(({ row }) => row.some((cell) => cell.trim() !== ""));
  const rows = filled.map(({ row }) => row);
  if (rows.length === 0) return problem(msg`The table is empty`);
  if (rows.length > mostRows + 1) return problem(tooManyRows);
  const width = Math.max(...rows.map((row) => row.length));
  if (width > mostColumns) return problem(msg`The table has more than ${mostColumns} columns`);
  const long = rows.findIndex((row) => row.some((cell) => cell.length > mostCellCharacters));
  const lines = filled.map(({ line }) => line);
  if (long !== -1)
    return problem(msg`A cell of row ${lines[long] ?? 0} is longer than ${mostCellCharacters} characters`);
  return success({
    cells: rows.map((row) => Array.from({ length: width }, (_, i) => (row[i] ?? "").trim())),
    lines,
    commas,
  });
}

/** A pasted table, or the text of a CSV. */
export function sheetOfText(text: string): Result<Sheet, SheetProblem> {
  if (text.includes("\0")) return problem(msg`This is not a table of text`);
  const mostLines = 2 * mostRows;
  const { cells, delimiter } = cellsOf(text.replace(/^\ufeff/, ""), mostLines + 1, { keepEmpty: true });
  // More were not looked at: nothing of it is taken rather than a part.
  if (cells.length > mostLines) return problem(tooManyRows);
  return whole(cells, delimiter === ",");
}

/** The text of a CSV by its encoding; asks where it is not UTF-8 and nobody has said what it is. */
export function sheetOfCsv(bytes: Uint8Array, encoding: Encoding | null): Result<Sheet, SheetProblem> {
  const marked = bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : null;
  const used = encoding ?? marked ?? "utf-8";
  try {
    return sheetOfText(new TextDecoder(used, { fatal: true }).decode(bytes));
  } catch {
    return {
      ok: false,
      problem: {
        message: msg`The text is not in UTF-8: choose its encoding, and check the letters in the preview`,
        encoding: true,
      },
    };
  }
}

/** Decimals that a number format of a spreadsheet shows; null where it shows what there is. */
function decimalsShown(format: string | undefined): number | null {
  const [, decimals] = /^[#,]*0(?:\.(0+))?(?:[^.0#]*)$/.exec((format ?? "").split(";")[0] ?? "") ?? [];
  return decimals?.length ?? null;
}

/** A number with the zeros at its end that its format shows; digits that the format hides are kept. */
function numberShown(value: number, format: string | undefined): string {
  const percent = (format ?? "").includes("%");
  const shownAs = percent ? value * 100 : value;
  const decimals = decimalsShown(format);
  // Nobody reads the fifteenth digit: what a sum in binary leaves there is no reading.
  const exact = String(Number(shownAs.toPrecision(14)));
  const set = decimals === null ? exact : shownAs.toFixed(decimals);
  return Number(set) === Number(exact) ? set : exact;
}

/** A cell as it is shown: numbers with the decimals of their format, dates as year, month and day. */
function shown(value: unknown, format: string | undefined): string {
  if (value === null || value === undefined) return "";
  if (typeof value === "number") return numberShown(value, format);
  // A workbook keeps the clock of whoever typed it, without a zone.
  if (value instanceof Date) return value.toISOString().slice(0, 16).replace("T", " ").replace(" 00:00", "");
  if (typeof value === "object") {
    if ("result" in value) return shown(value.result, format);
    if ("richText" in value) return (value.richText as { text: string }[]).map(({ text }) => text).join("");
    if ("text" in value) return shown(value.text, format);
    return "";
  }
  return typeof value === "string" || typeof value === "boolean" ? String(value) : "";
}

/** The first sheet of a workbook (XLSX). */
export async function sheetOfWorkbook(bytes: Uint8Array<ArrayBuffer>): Promise<Result<Sheet, SheetProblem>> {
  const { default: ExcelJS } = await import("exceljs");
  const workbook = new ExcelJS.Workbook();
  try {
    await workbook.xlsx.load(bytes.buffer);
  } catch {
    return problem(msg`The workbook cannot be opened: it is damaged or cut off`);
  }
  const [sheet] = workbook.worksheets;
  if (!sheet) return problem(msg`The workbook has no sheet`);
  if (sheet.rowCount > mostRows + 1) return problem(tooManyRows);
  const cells: string[][] = [];
  sheet.eachRow((row, line) => {
    // Rows that are empty are passed over here, and count all the same.
    while (cells.length < line - 1) cells.push([]);
    const found: string[] = [];
    row.eachCell({ includeEmpty: true }, (cell, column) => {
      if (column <= mostColumns + 1) found[column - 1] = shown(cell.value, cell.numFmt);
    });
    cells.push(Array.from(found, (cell) => cell ?? ""));
  });
  return whole(cells, false);
}
