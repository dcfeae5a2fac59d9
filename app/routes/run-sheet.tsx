import { SheetPage } from "../features/paper/sheet-page";
import type { Route } from "./+types/run-sheet";
import { runFrom } from "./run-id.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, msg`Data sheet: ${loaderData?.record.title ?? ""}`);

export async function loader({ params }: Route.LoaderArgs) {
  return { record: (await runFrom(params)).record };
}

export default function RunSheet({ loaderData: { record } }: Route.ComponentProps) {
  return <SheetPage key={record.id} method={record.method} rules={record.houseRules} record={record} />;
}
