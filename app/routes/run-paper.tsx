import { data } from "react-router";
import { database } from "~/server/lab/current";
import { loadRunState } from "~/server/queries/stored-run";
import { PaperPage } from "../features/paper/paper-page";
import type { Route } from "./+types/run-paper";
import { readable, runIdFrom } from "./run-id.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `From paper: ${loaderData?.record.title ?? ""} · Steady Bead` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const runId = runIdFrom(params);
  const state = await readable(runId, async () => loadRunState(await database(), runId));
  if (!state) throw data("There is no such run.", { status: 404 });
  return state;
}

export default function RunPaper({ loaderData }: Route.ComponentProps) {
  return <PaperPage key={loaderData.record.id} loaded={loaderData} />;
}
