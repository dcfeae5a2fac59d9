import { documentOf } from "~/formats/report/document";
import { fileWithResults } from "~/formats/results/stated";
import { linksHead } from "~/formats/proof/head";
import { labFingerprint } from "~/server/lab/signer";
import { database } from "~/server/lab/current";
import { labOf } from "~/server/commands/lab";
import { loadRunRecord } from "~/server/queries/stored-run";
import { msg } from "~/core/text";
import { useMemo } from "react";
import { data } from "react-router";
import { ReportPage } from "../features/report/report-page";
import type { Route } from "./+types/report";
import { runFrom } from "./run-id.server";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, msg`Report: ${loaderData?.record.title ?? ""}`);

export async function loader({ params }: Route.LoaderArgs) {
  const { record } = await runFrom(params);
  const db = await database();
  const stored = await loadRunRecord(db, record.id);
  if (!stored) throw data("There is no such run.", { status: 404 });
  return {
    record,
    letterhead: (await labOf(db))?.letterhead ?? "",
    proof: { ...linksHead(fileWithResults(stored)), key: labFingerprint() },
  };
}

export default function Report({ loaderData: { record, letterhead, proof } }: Route.ComponentProps) {
  const report = useMemo(() => documentOf(record), [record]);
  return <ReportPage key={record.id} report={report} proof={proof} letterhead={letterhead} />;
}
