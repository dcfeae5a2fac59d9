import { seriesCsv } from "~/formats/series-file";
import { database } from "~/server/lab/current";
import { runsOfSeries, tableOfSeries } from "~/server/queries/series";
import type { Route } from "./+types/series-export";

/** The table of a series as a file: a spreadsheet opens it. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const records = await runsOfSeries(await database(), params.seriesId);
  if (records.length === 0) return new Response("There is no such series.", { status: 404 });
  const unit = new URL(request.url).searchParams.get("unit") ?? "";
  return new Response(seriesCsv(tableOfSeries(records, unit)), {
    headers: {
      "Content-Type": "text/csv; charset=utf-8",
      "Content-Disposition": 'attachment; filename="results.csv"',
      "Cache-Control": "no-store",
    },
  });
}
