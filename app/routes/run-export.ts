import { exportBy, exportName } from "~/formats/exports";
import { signer } from "~/server/lab/signer";
import { database } from "~/server/lab/current";
import { loadRunRecord } from "~/server/queries/stored-run";
import type { Route } from "./+types/run-export";
import { readable, runIdFrom } from "./run-id.server";

/** A run as a file, in one of the formats of `formats/exports`. */
export async function loader({ params }: Route.LoaderArgs) {
  const chosen = exportBy(params.format);
  if (!chosen) return new Response("There is no such format.", { status: 404 });
  const runId = runIdFrom(params);
  const db = await database();
  const record = await readable(runId, () => loadRunRecord(db, runId));
  if (!record) return new Response("There is no such run.", { status: 404 });
  const body = await chosen.write(record, { sign: await signer(db, new Date()) });
  return new Response(body, {
    headers: {
      "Content-Type": chosen.type,
      "Content-Disposition": `attachment; filename="${exportName(record.title, chosen)}"`,
      "Cache-Control": "no-store",
    },
  });
}
