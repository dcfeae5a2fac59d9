import { database } from "~/server/lab/current";
import { lineageGraph } from "~/server/queries/lineage";
import { LineagePage } from "../features/shelf/lineage-page";
import type { Route } from "./+types/lineage";

export const meta: Route.MetaFunction = () => [{ title: "Lineage · Steady Bead" }];

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
