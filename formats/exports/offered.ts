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
  /** True for one that a run has only where it holds spectra, courses or curves. */
  readonly ofLines?: true;
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
  {
    ...csv,
    key: "lines",
    label: msg`Spectra, kinetic runs and curves (CSV)`,
    use: msg`A line for each point, with the digits with which it came.`,
    ofLines: true,
  },
  {
    key: "jcamp",
    label: msg`Spectra, kinetic runs and curves (JCAMP-DX)`,
    use: msg`The open format of spectrometers: a block for each of them.`,
    ending: "jdx",
    type: "chemical/x-jcamp-dx; charset=utf-8",
    ofLines: true,
  },
] as const satisfies readonly OfferedExport[];

export type ExportKey = (typeof offeredExports)[number]["key"];
