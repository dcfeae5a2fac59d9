import { data } from "react-router";
import { database } from "~/server/lab/current";
import { labWords } from "~/server/queries/in-words";
import { loadRunRecord } from "~/server/queries/stored-run";
import { trailOf } from "~/server/queries/trail";
import { TrailPage } from "../features/trail/trail-page";
import type { Route } from "./+types/trail";
import { readable, runIdFrom } from "./run-id.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, msg`Trail of ${loaderData?.title ?? msg`a run`}`);

export async function loader({ params }: Route.LoaderArgs) {
  const db = await database();
  const runId = runIdFrom(params);
  const found = await readable(runId, async () => {
    const record = await loadRunRecord(db, runId);
    return record && { record, lines: await trailOf(db, (await labWords(db)).record(record)) };
  });
  if (!found) throw data("There is no such run.", { status: 404 });
  const { id, title, sample, bench, startedAt } = found.record;
  return { id, title, sample, bench, startedAt, lines: found.lines };
}

export default function Trail({ loaderData }: Route.ComponentProps) {
  return <TrailPage {...loaderData} />;
}
