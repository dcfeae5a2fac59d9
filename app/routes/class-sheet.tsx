import { msg } from "~/core/text";
import { labOf } from "~/server/commands/lab";
import { database } from "~/server/lab/current";
import { ClassSheetPage } from "../features/history/class-sheet-page";
import { pageTitle } from "../words/page-title";
import type { Route } from "./+types/class-sheet";
import { chosenSheet } from "./chosen-runs.server";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Class sheet`);

export async function loader({ request }: Route.LoaderArgs) {
  const { search } = new URL(request.url);
  return {
    sheet: await chosenSheet(request),
    letterhead: (await labOf(await database()))?.letterhead ?? "",
    pdf: `/history/sheet/pdf${search}`,
  };
}

export default function ClassSheet({ loaderData }: Route.ComponentProps) {
  return <ClassSheetPage {...loaderData} />;
}
