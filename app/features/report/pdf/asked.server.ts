import type { HouseWords } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { documentOf } from "~/formats/report/document";
import { localized } from "../../../words/text";
import type { ReportProof } from "../ends";
import type { PrintedAs } from "./parts.server";
import { reportPdf } from "./report-pdf.server";

/** A report that is wanted as PDF; plain data, so that it can be handed to another thread. */
export interface ReportAsked extends Pick<PrintedAs, "paper" | "working"> {
  /** In the words of the lab. */
  readonly record: RunRecord;
  readonly proof: ReportProof;
  /** Whose report it is; empty where the lab has no header. */
  readonly letterhead: string;
  readonly words: HouseWords;
}

/** Writes it in this thread, which is busy for about a second. */
export const writeReport = ({ record, proof, letterhead, ...as }: ReportAsked) =>
  reportPdf(documentOf(record), proof, letterhead, { ...as, say: localized(as.words) });
