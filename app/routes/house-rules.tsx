import { data } from "react-router";
import { validate } from "uuid";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { saveHouseRules } from "~/server/commands/house-rules";
import { changeRun } from "~/server/commands/change-run";
import { labWords } from "~/server/queries/in-words";
import { loadRunRecord } from "~/server/queries/stored-run";
import { listOpenRuns } from "~/server/queries/runs";
import { byProblems } from "~/server/commands/deed";
import { changedRules } from "../features/house-rules/changed-rules";
import { rulesOfTexts } from "../features/house-rules/form";
import { HouseRulesPage } from "../features/house-rules/house-rules-page";
import { addressOfRequest } from "../request-context";
import type { Route } from "./+types/house-rules";
import { formTexts } from "./body.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`House rules`);

/** The run that is asked for in the address, where there is one. */
const runAsked = (request: Request) => new URL(request.url).searchParams.get("run");

/** How many open runs the rules can be tried on. */
const tried = 6;

export async function loader({ request }: Route.LoaderArgs) {
  const db = await database();
  const asked = runAsked(request);
  const words = await labWords(db);
  if (asked !== null) {
    const run = validate(asked) ? await loadRunRecord(db, asked) : null;
    if (!run) throw data("There is no such run.", { status: 404 });
    return { rules: run.houseRules, run: words.record(run), openRuns: [] };
  }
  const open = await listOpenRuns(db, tried);
  // One that cannot be read is left out: its own page tells why.
  const records = await Promise.all(open.map(({ id }) => loadRunRecord(db, id).catch(() => null)));
  return {
    rules: (await currentHouseRules(db)).data,
    run: null,
    openRuns: records.flatMap((record) => (record ? [words.record(record)] : [])),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const texts = await formTexts(request);
  const { person = "", reason = "" } = texts;
  const read = rulesOfTexts(texts);
  const asked = runAsked(request);
  // A run's changes carry the name of its bench.
  const unsaid = byProblems({ person: asked === null ? person : "the run's bench", reason });
  if ("problems" in read || unsaid) {
    const problems = { ...unsaid, ...("problems" in read ? read.problems : {}) };
    return data({ problems, saved: false }, { status: 400 });
  }
  const db = await database();
  if (asked === null) {
    const before = (await currentHouseRules(db)).data;
    const by = { person: person.trim(), reason: reason.trim(), from: context.get(addressOfRequest) };
    await saveHouseRules(db, read.rules, by, changedRules(before, read.rules));
    return { problems: {}, saved: true };
  }
  const changed = validate(asked)
    ? await changeRun(db, asked, { intent: "rules", rules: read.rules, reason: reason.trim() })
    : null;
  if (changed?.status === "done") return { problems: {}, saved: true };
  return data(
    { problems: { form: changed?.message ?? "There is no such run" }, saved: false },
    { status: 422 },
  );
}

export default function HouseRulesRoute({ loaderData: { rules, run, openRuns } }: Route.ComponentProps) {
  return <HouseRulesPage key={run?.id ?? "lab"} rules={rules} run={run} openRuns={openRuns} />;
}
