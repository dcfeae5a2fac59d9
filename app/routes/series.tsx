import { database } from "~/server/lab/current";
import { labWords } from "~/server/queries/in-words";
import { runsOfSeries, tableOfSeries } from "~/server/queries/series";
import { msg } from "~/core/text";
import { SeriesPage } from "../features/series/series-page";
import { pageTitle } from "../words/page-title";
import type { Route } from "./+types/series";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Table of results`);

export async function loader({ params, request }: Route.LoaderArgs) {
  const db = await database();
  const words = await labWords(db);
  const records = (await runsOfSeries(db, params.seriesId)).map(words.record);
  const [first] = records;
  if (!first) throw new Response("There is no such series.", { status: 404 });
  const unit = new URL(request.url).searchParams.get("unit") ?? "";
  const { id, title } = first.method;
  return { seriesId: params.seriesId, method: { id, title }, table: tableOfSeries(records, unit) };
}

export default function Series({ loaderData }: Route.ComponentProps) {
  return <SeriesPage {...loaderData} />;
}
