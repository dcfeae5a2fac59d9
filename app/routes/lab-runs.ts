import { ask } from "~/server/backup/inspect";
import { chosenBackup, RestoreError } from "~/server/backup/restore";
import { dataFolder } from "~/server/lab/current";
import type { Route } from "./+types/lab-runs";

/** The runs that a backup holds, the newest first. */
export async function loader({ request }: Route.LoaderArgs) {
  const name = new URL(request.url).searchParams.get("backup") ?? "";
  try {
    // By its name alone: no address leads to a file elsewhere.
    if (!/^lab-[\w-]+\.tar\.gz$/.test(name)) throw new RestoreError("There is no such backup.");
    const runs = await ask("runs", chosenBackup(dataFolder(), name).file);
    return Response.json({ runs: [...runs].reverse() }, { headers: { "Cache-Control": "no-store" } });
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    return Response.json({ message }, { status: error instanceof RestoreError ? 404 : 422 });
  }
}
