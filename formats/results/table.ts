import { csvOf } from "../csv";
import type { RunFile } from "../concluded";
import type { StatedResult } from "./schema";

type Row = readonly [run: RunFile, result: StatedResult | null];
const text = (value: number | undefined) => (value === undefined ? "" : String(value));

const columns: readonly (readonly [head: string, of: (row: Row) => string | null])[] = [
  ["run", ([{ id }]) => id],
  ["title", ([{ title }]) => title],
  ["sample", ([{ sample }]) => sample],
  ["bench", ([{ bench }]) => bench],
  ["state", ([{ status }]) => status],
  ["begun", ([{ startedAt }]) => startedAt],
  ["finished", ([{ finishedAt }]) => finishedAt],
  ["method", ([{ method }]) => method.title],
  ["method id", ([{ method }]) => method.id],
  ["method version", ([{ method }]) => String(method.version)],
  [
    "stage",
    ([{ method }, result]) =>
      (result && method.stages.find(({ key }) => key === result.stage)?.title) ?? result?.stage ?? null,
  ],
  ["letter", ([, result]) => result?.symbol ?? null],
  ["result", ([, result]) => text(result?.value)],
  ["standard uncertainty", ([, result]) => text(result?.standardUncertainty)],
  ["unit", ([, result]) => result?.unit ?? null],
  ["as shown", ([, result]) => result?.shown ?? null],
];

/** A line for each result, and one for each run that has none yet. */
const rowsOf = (runs: readonly RunFile[]): Row[] =>
  runs.flatMap((run): Row[] =>
    run.results && run.results.length > 0 ? run.results.map((result): Row => [run, result]) : [[run, null]],
  );

/** The results of runs as a table. */
export const resultsCsv = (runs: readonly RunFile[]): string => csvOf(columns, rowsOf(runs));

/** The same as a spreadsheet: results are numbers, all else is text. */
export async function resultsXlsx(runs: readonly RunFile[]): Promise<Uint8Array<ArrayBuffer>> {
  // Only those who want a workbook wait for its library.
  const { default: library } = await import("exceljs");
  const book = new library.Workbook();
  const sheet = book.addWorksheet("Results", { views: [{ state: "frozen", ySplit: 1 }] });
  sheet.columns = columns.map(([head]) => ({ header: head, width: Math.max(12, head.length + 4) }));
  sheet.getRow(1).font = { bold: true };
  const numeric = new Set(["result", "standard uncertainty", "method version"]);
  for (const row of rowsOf(runs))
    sheet.addRow(
      columns.map(([head, of]) => {
        const text = of(row) ?? "";
        return numeric.has(head) && text !== "" ? Number(text) : text;
      }),
    );
  return new Uint8Array(await book.xlsx.writeBuffer());
}
