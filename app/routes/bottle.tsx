import { data } from "react-router";
import { validate } from "uuid";
import { checkEditSolution } from "~/protocol/shelf";
import { database } from "~/server/lab/current";
import { relativesOf } from "~/server/queries/lineage";
import { editSolution } from "~/server/commands/shelf";
import { solutionById } from "~/server/queries/shelf";
import { BottlePage } from "../features/shelf/bottle-page";
import { addressOfRequest } from "../request-context";
import type { Route } from "./+types/bottle";
import { jsonBody } from "./body.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, loaderData?.solution.name ?? msg`Bottle`);

const missing = () => data("There is no such bottle.", { status: 404 });

export async function loader({ params }: Route.LoaderArgs) {
  const db = await database();
  const found = validate(params.solutionId) ? await solutionById(db, params.solutionId) : null;
  if (!found) throw missing();
  return { ...found, ...(await relativesOf(db, found.solution.id)) };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  if (!validate(params.solutionId)) throw missing();
  const checked = checkEditSolution(await jsonBody(request));
  if ("problems" in checked) return data(checked, { status: 400 });
  const edited = await editSolution(
    await database(),
    params.solutionId,
    checked.value,
    new Date(),
    context.get(addressOfRequest),
  );
  if ("missing" in edited) throw missing();
  // 200 also where someone else was first: the page must load anew to show what they saved.
  return "problems" in edited ? edited : { problems: {} };
}

export default function Bottle({ loaderData }: Route.ComponentProps) {
  return <BottlePage {...loaderData} />;
}
