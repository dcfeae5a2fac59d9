import { inEnglish } from "~/core/text";
import { csvOf } from "./csv";
import type { LabTrailLine } from "./trail";

const columns: readonly (readonly [head: string, of: (line: LabTrailLine) => string | null])[] = [
  ["number", ({ seq }) => String(seq)],
  ["received", ({ received }) => received],
  ["stated time", ({ at }) => at],
  ["about", ({ about }) => about],
  ["of", ({ subject }) => subject],
  ["id", ({ subjectId }) => subjectId],
  ["who", ({ person }) => person],
  ["what", ({ what }) => inEnglish(what)],
  ["from", ({ from }) => from && inEnglish(from)],
  ["to", ({ to }) => to && inEnglish(to)],
  ["why", ({ why }) => why && inEnglish(why)],
  ["undone", ({ undone }) => undone?.at ?? null],
  ["undone by", ({ undone }) => undone?.person ?? null],
  ["received from", ({ receivedFrom }) => receivedFrom],
];

/**
 * The lab's trail as a table that any spreadsheet opens, the newest line first. Texts that a spreadsheet would take for a formula
 * are marked as text.
 */
export const labTrailCsv = (lines: readonly LabTrailLine[]): string => csvOf(columns, lines);
