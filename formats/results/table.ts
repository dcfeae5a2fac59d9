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

/** The results of runs as a table: a line for each result, and one for each run that has none yet. */
export const resultsCsv = (runs: readonly RunFile[]): string =>
  csvOf(
    columns,
    runs.flatMap((run): Row[] =>
      run.results && run.results.length > 0 ? run.results.map((result): Row => [run, result]) : [[run, null]],
    ),
  );
