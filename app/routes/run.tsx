import { data, type ShouldRevalidateFunctionArgs } from "react-router";
import { database } from "~/server/lab/current";
import { labWords } from "~/server/queries/in-words";
import { loadRunState } from "~/server/queries/stored-run";
import { poorIndicators } from "~/server/queries/poor-indicators";
import { shelfOfRun } from "~/server/queries/shelf-of-run";
import { RunPage } from "../features/run/run-page";
import { PoorIndicators } from "../features/stages/titration/poor-indicator";
import type { Route } from "./+types/run";
import { readable, runIdFrom } from "./run-id.server";
import { needsEngines } from "~/core/stages/late";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, loaderData?.state.record.title ?? msg`Run`);

/** A stage is looked at on the run that is here already: nothing has to be fetched for it, so it works out of reach too. */
export function shouldRevalidate({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs) {
  const sameRun = currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search;
  return sameRun && formMethod === undefined ? false : defaultShouldRevalidate;
}

export async function loader({ params }: Route.LoaderArgs) {
  const db = await database();
  const runId = runIdFrom(params);
  const found = await readable(runId, async () => {
    const state = await loadRunState(db, runId);
    const words = await labWords(db);
    return (
      state && {
        state: words.state(state),
        shelf: await shelfOfRun(db, state.record),
        indicators: poorIndicators(state.record),
      }
    );
  });
  if (!found) throw data("There is no such run.", { status: 404 });
  return found;
}

/** Where one comes from another page: the engine of its stages is there before the run is shown. */
export async function clientLoader({ serverLoader }: Route.ClientLoaderArgs) {
  const loaded = await serverLoader();
  if (needsEngines(loaded.state.record.method)) await import("~/core/stages/engines");
  return loaded;
}

export default function Run({ loaderData }: Route.ComponentProps) {
  const { state, shelf, indicators } = loaderData;
  return (
    <PoorIndicators value={indicators}>
      <RunPage key={state.record.id} loaded={state} shelf={shelf} />
    </PoorIndicators>
  );
}
