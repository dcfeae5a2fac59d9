import { data } from "react-router";
import { database } from "~/server/lab/current";
import { loadRunState } from "~/server/queries/stored-run";
import { WorkingPage } from "../features/working/working-page";
import type { Route } from "./+types/working";
import { readable, runIdFrom } from "./run-id.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Working: ${loaderData?.record.title ?? ""} · Steady Bead` },
];

export async function loader({ params, request }: Route.LoaderArgs) {
  const runId = runIdFrom(params);
  const state = await readable(runId, async () => loadRunState(await database(), runId));
  if (!state) throw data("There is no such run.", { status: 404 });
  const search = new URL(request.url).searchParams;
  return { record: state.record, stageKey: search.get("stage"), trialId: search.get("trial") };
}

export default function Working({ loaderData }: Route.ComponentProps) {
  return <WorkingPage {...loaderData} />;
}
