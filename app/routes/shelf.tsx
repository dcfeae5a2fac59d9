import { database } from "~/server/lab/current";
import { listShelf } from "~/server/queries/shelf";
import { ShelfPage } from "../features/shelf/shelf-page";
import type { Route } from "./+types/shelf";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Shelf`);

export async function loader({ request }: Route.LoaderArgs) {
  const usedUp = new URL(request.url).searchParams.get("used") === "1";
  return { usedUp, bottles: await listShelf(await database(), usedUp) };
}

export default function Shelf({ loaderData }: Route.ComponentProps) {
  return <ShelfPage {...loaderData} />;
}
