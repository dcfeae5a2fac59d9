import { msg, type Phrase } from "~/core/text";

/** A format in which a run leaves the lab, as it is offered. What writes it stands in `index.ts`, which only the server needs. */
export interface OfferedExport {
  /** In addresses, and at the end of the file's name. */
  readonly key: string;
  readonly label: Phrase;
  /** What it is good for, in a sentence. */
  readonly use: Phrase;
  /** Ending of the file's name. */
  readonly ending: string;
  readonly type: string;
}

const csv = { ending: "csv", type: "text/csv; charset=utf-8" } as const;

/** All formats, in the order in which they are offered. */
export const offeredExports = [
  {
    key: "record",
    label: msg`Run record, signed (JSON)`,
    use: msg`Everything that was read, with the method: bin/recompute computes it again, bin/verify tells whether it was altered.`,
    ending: "json",
    type: "application/json; charset=utf-8",
  },
  {
    key: "working",
    label: msg`Spreadsheet with live formulas (XLSX)`,
    use: msg`Readings in cells and each step a formula over them: change a reading, and the result follows.`,
    ending: "xlsx",
    type: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  },
  {
    ...csv,
    key: "trials",
    label: msg`Trials (CSV)`,
    use: msg`A line for each trial: what was read, what follows from it, whether it counts.`,
  },
  {
    ...csv,
    key: "readings",
    label: msg`Readings (CSV)`,
    use: msg`Every reading as it was typed, with who, when, and what became of it.`,
  },
] as const satisfies readonly OfferedExport[];

export type ExportKey = (typeof offeredExports)[number]["key"];
