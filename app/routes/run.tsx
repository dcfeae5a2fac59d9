import { data } from "react-router";
import { database } from "~/server/database/current";
import { loadRunState } from "~/server/repositories/run-state";
import { RunPage } from "../features/run/run-page";
import type { Route } from "./+types/run";
import { runIdFrom } from "./run-id.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.record.title ?? "Run"} · Steady Bead` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const state = await loadRunState(await database(), runIdFrom(params));
  if (!state) throw data("There is no such run.", { status: 404 });
  return state;
}

export default function Run({ loaderData }: Route.ComponentProps) {
  return <RunPage key={loaderData.record.id} loaded={loaderData} />;
}
