import { data } from "react-router";
import { validate } from "uuid";
import { ancestorsOf, dependentsOf } from "~/core/prepare";
import { concentrationText } from "~/formats/concentration";
import { checkEditSolution } from "~/formats/shelf";
import { database } from "~/server/database/current";
import { lineageGraph } from "~/server/repositories/lineage";
import { editSolution, solutionById } from "~/server/repositories/shelf";
import { BottlePage, type Related } from "../features/shelf/bottle-page";
import type { Route } from "./+types/bottle";
import { jsonBody } from "./run-id.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.solution.name ?? "Bottle"} · Steady Bead` },
];

const missing = () => data("There is no such bottle.", { status: 404 });

export async function loader({ params }: Route.LoaderArgs) {
  const db = await database();
  const found = validate(params.solutionId) ? await solutionById(db, params.solutionId) : null;
  if (!found) throw missing();
  const graph = await lineageGraph(db);
  const standsOn = new Map([
    ...graph.bottles.map((b) => [b.bottle.id, b.standsOn] as const),
    ...graph.runs.map((r) => [r.id, r.standsOn] as const),
  ]);
  const related = (ids: ReadonlySet<string>): Related[] => [
    ...graph.bottles.flatMap(({ bottle: b }) =>
      ids.has(b.id)
        ? [
            {
              id: b.id,
              to: `/shelf/${b.id}`,
              title: `${b.code} ${b.name}`,
              fact: b.current ? concentrationText(b.current) : "",
            },
          ]
        : [],
    ),
    ...graph.runs.flatMap((r) =>
      ids.has(r.id)
        ? [{ id: r.id, to: `/runs/${r.id}`, title: r.title, fact: r.result ?? "no result yet" }]
        : [],
    ),
  ];
  return {
    ...found,
    standsOn: related(ancestorsOf(found.solution.id, standsOn)),
    carries: related(dependentsOf(found.solution.id, standsOn)),
  };
}

export async function action({ request, params }: Route.ActionArgs) {
  if (!validate(params.solutionId)) throw missing();
  const checked = checkEditSolution(await jsonBody(request));
  if ("problems" in checked) return data(checked, { status: 400 });
  const edited = await editSolution(await database(), params.solutionId, checked.value);
  if ("missing" in edited) throw missing();
  // 200 also where someone else was first: the page must load anew to show what they saved.
  return "problems" in edited ? edited : { problems: {} };
}

export default function Bottle({ loaderData }: Route.ComponentProps) {
  return <BottlePage {...loaderData} />;
}
