import { labTrailCsv } from "~/formats/lab-trail-file";
import { database } from "~/server/lab/current";
import { labTrail } from "~/server/queries/lab-trail";
import type { Route } from "./+types/lab-trail-export";
import { trailAsked } from "./trail-asked.server";

/** More lines than a lab writes in years. */
const limit = 1_000_000;

/** The lab's trail as a file: a table, or JSON. */
export async function loader({ request }: Route.LoaderArgs) {
  const { about, words } = trailAsked(request);
  const lines = await labTrail(await database(), { words, about, before: null, limit });
  const json = new URL(request.url).searchParams.get("format") === "json";
  const day = new Date().toISOString().slice(0, 10);
  return new Response(json ? `${JSON.stringify(lines, null, 2)}\n` : labTrailCsv(lines), {
    headers: {
      "Content-Type": json ? "application/json; charset=utf-8" : "text/csv; charset=utf-8",
      "Content-Disposition": `attachment; filename="trail-${day}.${json ? "json" : "csv"}"`,
      "Cache-Control": "no-store",
    },
  });
}
