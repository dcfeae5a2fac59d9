import type { SeriesRow, SeriesTable } from "~/core/evaluate";
import { inEnglish } from "~/core/text";
import { csvOf } from "./csv";

const number = (value: number | null, digits = 6): string =>
  value === null ? "" : String(Number(value.toPrecision(digits)));

type Cell = readonly [head: string, of: (row: SeriesRow) => string];

const columns = (unit: string): readonly Cell[] => [
  ["sample", ({ sample }) => sample],
  ["bench", ({ bench }) => bench],
  ["kind", ({ role }) => role],
  ["title", ({ title }) => title],
  ["state", ({ state }) => inEnglish(state)],
  ["result stands", ({ done }) => (done ? "yes" : "no")],
  [`result, ${unit}`, ({ shown }) => shown?.value ?? ""],
  [`plus-minus, ${unit}`, ({ shown }) => shown?.plusMinus ?? ""],
  [`standard uncertainty, ${unit}`, ({ u }) => number(u, 3)],
  ["error, %", ({ errorPercent }) => number(errorPercent, 4)],
  ["recovery, %", ({ recoveryPercent }) => number(recoveryPercent, 5)],
  ["difference from its sample, %", ({ differencePercent }) => number(differencePercent, 4)],
  ["within what is allowed", ({ within }) => (within === null ? "" : within ? "yes" : "no")],
  ["run", ({ runId }) => runId],
];

/** The results of a series as a table that any spreadsheet opens. Texts that it would take for a formula are marked as text. */
export const seriesCsv = ({ rows, unit }: SeriesTable): string => csvOf(columns(unit), rows);
