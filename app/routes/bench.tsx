import { data, redirect } from "react-router";
import { checkStartRun } from "~/protocol/requests";
import { database } from "~/server/lab/current";
import { troubles } from "~/server/maintenance/health";
import { labWords } from "~/server/queries/in-words";
import { methodChoices } from "~/server/queries/methods";
import { dueBottles } from "~/server/queries/shelf";
import { benchOf, listOpenRuns, searchFinishedRuns } from "~/server/queries/runs";
import { loadDemo } from "~/server/seed/load-demo";
import { ofItsMethod, startRun } from "~/server/commands/start-run";
import { BenchPage } from "../features/bench/bench-page";
import type { Route } from "./+types/bench";
import { formTexts } from "./body.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Bench`);

export async function loader({ request }: Route.LoaderArgs) {
  const db = await database();
  const { searchParams } = new URL(request.url);
  const query = searchParams.get("q") ?? "";
  const archived = searchParams.get("archived") === "yes";
  const words = await labWords(db);
  const finished = await searchFinishedRuns(db, query, { archived });
  return {
    query,
    today: new Date().toISOString(),
    open: (await listOpenRuns(db)).map(words.item),
    archived,
    finished: { ...finished, runs: finished.runs.map(words.item) },
    due: await dueBottles(db),
    againAt: await benchOf(db, searchParams.get("again") ?? ""),
    methods: await methodChoices(db, words),
    troubles: await troubles(),
  };
}

/** What a form asks for; how its stages are known, and what several runs are of, stand in it as JSON. */
function startRequest({ known, several, ...form }: Record<string, string>): unknown {
  const parsed = (name: string, json: string | undefined) => {
    if (json === undefined || json === "") return {};
    try {
      return { [name]: JSON.parse(json) as unknown };
    } catch {
      return { [name]: json };
    }
  };
  return { ...form, ...parsed("known", known), ...parsed("several", several) };
}

export async function action({ request }: Route.ActionArgs) {
  const form = await formTexts(request);
  if (form.intent === "demo") {
    const loaded = await loadDemo(await database(), new Date());
    return loaded.ok ? redirect("/") : data({ message: loaded.problem.message }, { status: 400 });
  }
  const checked = checkStartRun(startRequest(form));
  if (!checked.ok) {
    const title = form.title?.trim() === "";
    return data({ message: title ? "Give the run a title" : checked.problem.message }, { status: 400 });
  }
  const started = await startRun(await database(), ofItsMethod(checked.value));
  if (!started.ok) return data(started.problem, { status: 400 });
  return redirect(checked.value.several ? `/series/${started.value}` : `/runs/${started.value}`);
}

export default function Bench({ loaderData }: Route.ComponentProps) {
  return <BenchPage {...loaderData} />;
}
