import { msg } from "~/core/text";
import { historyAsked } from "~/protocol/history";
import { database } from "~/server/lab/current";
import { historyOf, methodsOfRuns, resultChoices, resultsInTime } from "~/server/queries/history";
import { HistoryPage } from "../features/history/history-page";
import { pageTitle } from "../words/page-title";
import type { Route } from "./+types/history";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`History`);

export async function loader({ request }: Route.LoaderArgs) {
  const db = await database();
  const asked = historyAsked(new URL(request.url).searchParams);
  return {
    asked,
    history: await historyOf(db, asked),
    inTime: await resultsInTime(db, asked),
    methods: await methodsOfRuns(db),
    results: await resultChoices(db),
  };
}

export default function History({ loaderData }: Route.ComponentProps) {
  return <HistoryPage {...loaderData} />;
}
