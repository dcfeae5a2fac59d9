import { database } from "~/server/lab/current";
import { lineageGraph } from "~/server/queries/lineage";
import { LineagePage } from "../features/shelf/lineage-page";
import type { Route } from "./+types/lineage";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Lineage`);

export async function loader({ request }: Route.LoaderArgs) {
  return {
    graph: await lineageGraph(await database()),
    of: new URL(request.url).searchParams.get("of"),
    now: new Date().toISOString(),
  };
}

export default function Lineage({ loaderData }: Route.ComponentProps) {
  return <LineagePage {...loaderData} />;
}
