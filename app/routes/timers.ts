import { database } from "~/server/lab/current";
import { runningTimers } from "~/server/queries/timers";

/** The timers that run, by the server's clock. */
export async function loader() {
  return Response.json(await runningTimers(await database()), { headers: { "Cache-Control": "no-store" } });
}
