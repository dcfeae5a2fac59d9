import { exportName } from "~/formats/exports";
import { fileWithResults } from "~/formats/results/stated";
import { linksHead } from "~/formats/proof/head";
import { database } from "~/server/lab/current";
import { labFingerprint } from "~/server/lab/signer";
import { labOf } from "~/server/commands/lab";
import { currentHouseRules } from "~/server/queries/house-rules";
import { labWords } from "~/server/queries/in-words";
import { loadRunRecord } from "~/server/queries/stored-run";
import { pdfAnswer, printedAs } from "./pdf-answer.server";
import type { Route } from "./+types/report-pdf";
import { readable, runIdFrom } from "./run-id.server";

/** The report of a run as PDF: `paper` is A4 or Letter, `working` full or short. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const runId = runIdFrom(params);
  const db = await database();
  const stored = await readable(runId, () => loadRunRecord(db, runId));
  if (!stored) return new Response("There is no such run.", { status: 404 });
  const asked = new URL(request.url).searchParams;
  const { words } = (await currentHouseRules(db)).data;
  const record = (await labWords(db)).record(stored);
  const proof = { ...linksHead(fileWithResults(stored)), key: labFingerprint() };
  return pdfAnswer(exportName(record.title, { key: "report", ending: "pdf" }), {
    of: { record, proof },
    letterhead: (await labOf(db))?.letterhead ?? "",
    ...printedAs(asked),
    words,
  });
}
