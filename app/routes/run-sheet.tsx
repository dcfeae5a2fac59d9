import { data } from "react-router";
import { database } from "~/server/lab/current";
import { loadRunState } from "~/server/queries/stored-run";
import { SheetPage } from "../features/paper/sheet-page";
import type { Route } from "./+types/run-sheet";
import { readable, runIdFrom } from "./run-id.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Data sheet: ${loaderData?.record.title ?? ""} · Steady Bead` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const runId = runIdFrom(params);
  const state = await readable(runId, async () => loadRunState(await database(), runId));
  if (!state) throw data("There is no such run.", { status: 404 });
  return { record: state.record };
}

export default function RunSheet({ loaderData: { record } }: Route.ComponentProps) {
  return <SheetPage key={record.id} method={record.method} rules={record.houseRules} record={record} />;
}
