import { database } from "~/server/lab/current";
import { listShelf } from "~/server/queries/shelf";
import { LabelsPage } from "../features/shelf/labels-page";
import type { Route } from "./+types/labels";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Labels`);

export async function loader({ request }: Route.LoaderArgs) {
  const ids = new URL(request.url).searchParams.get("ids")?.split(",").filter(Boolean) ?? [];
  const bottles = await listShelf(await database(), ids.length > 0);
  return { bottles: ids.length === 0 ? bottles : bottles.filter((b) => ids.includes(b.id)) };
}

export default function Labels({ loaderData }: Route.ComponentProps) {
  return <LabelsPage {...loaderData} />;
}
