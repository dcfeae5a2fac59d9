import { hasThreads, Thread } from "~/server/threads/thread";
import type { ReportAsked } from "./asked.server";

type Body = Uint8Array<ArrayBuffer>;

const thread = new Thread<ReportAsked, Body>("report", 30_000);

/** Writes a report as PDF: the built server in a thread beside it, what runs from the sources in its own. */
export async function reportBeside(asked: ReportAsked): Promise<Body> {
  if (hasThreads()) return thread.ask(asked);
  const { writeReport } = await import("./asked.server");
  return writeReport(asked);
}
