import type { ReportDocument } from "~/formats/report/document";
import { msg, type Phrase } from "~/core/text";

/*
 * What a report says beside its numbers, on a screen, on paper and in a PDF.
 */

export interface ReportFact {
  readonly name: Phrase;
  /** What is written; empty where it is a moment. */
  readonly text: Phrase;
  readonly at: string | null;
}

/** What, who, when; facts that nobody wrote are left out. */
export function factsOf({ sample, bench, people, startedAt, finishedAt }: ReportDocument): ReportFact[] {
  const facts: ReportFact[] = [
    { name: msg`Sample`, text: sample, at: null },
    { name: msg`Bench`, text: bench, at: null },
    { name: msg`Carried out by`, text: people.join(", "), at: null },
    { name: msg`Begun`, text: "", at: startedAt },
    { name: msg`Finished`, text: finishedAt === null ? msg`not finished` : "", at: finishedAt },
  ];
  return facts.filter(({ text, at }) => text !== "" || at !== null);
}

/** How the concentration of a bottle became known. */
export const howKnown: Readonly<Record<ReportDocument["bottles"][number]["how"], Phrase>> = {
  weighed: msg`by weighing`,
  diluted: msg`by dilution`,
  standardized: msg`standardized`,
  certificate: msg`certificate`,
  nominal: msg`as labeled`,
};

export const deferring = msg`Safety data sheets, local codes and licensed practice come before what stands here.`;

export const checkedBy = msg`Checked by, date`;
export const signatures: readonly Phrase[] = [msg`Carried out by, date`, checkedBy];

export const checksumsOf = msg`Checksums of the records (SHA-256):`;
export const keyOfLab = msg`Key of this lab (Ed25519):`;

export const checksumOver = (id: string, readings: number): Phrase =>
  msg`Run ${id}. Checksum over its ${readings} readings and all that stands around them (SHA-256):`;
