import type { HouseWords } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { documentOf } from "~/formats/report/document";
import { localized } from "../../../words/text";
import type { ClassSheet } from "../../history/class-sheet";
import type { ReportProof } from "../ends";
import type { PrintedAs } from "./parts.server";
import { reportPdf } from "./report-pdf.server";
import { sheetPdf } from "./sheet-pdf.server";

/** What is wanted as PDF; plain data, so that it can be handed to another thread. */
export interface ReportAsked extends Pick<PrintedAs, "paper" | "working"> {
  /** The report of a run in the words of the lab, or a sheet of several. */
  readonly of: { readonly record: RunRecord; readonly proof: ReportProof } | { readonly sheet: ClassSheet };
  /** Whose report it is; empty where the lab has no header. */
  readonly letterhead: string;
  readonly words: HouseWords;
}

/** Writes it in this thread, which is busy for about a second. */
export function writeReport({ of, letterhead, ...asked }: ReportAsked): Promise<Uint8Array<ArrayBuffer>> {
  const as = { ...asked, say: localized(asked.words) };
  return "sheet" in of
    ? sheetPdf(of.sheet, letterhead, as)
    : reportPdf(documentOf(of.record), of.proof, letterhead, as);
}
