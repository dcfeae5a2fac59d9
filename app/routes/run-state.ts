import type { Route } from "./+types/run-state";
import { readable, runIdFrom, runInWords } from "./run-id.server";

/** A run as it is now, for a screen that was told of a change. */
export async function loader({ params }: Route.LoaderArgs) {
  const runId = runIdFrom(params);
  const state = await readable(runId, () => runInWords(runId));
  const headers = { "Cache-Control": "no-store" };
  return state
    ? Response.json(state, { headers })
    : new Response("There is no such run.", { status: 404, headers });
}
