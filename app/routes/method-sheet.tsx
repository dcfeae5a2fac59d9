import { withQuantities } from "~/formats/earlier-methods";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { SheetPage } from "../features/paper/sheet-page";
import type { Route } from "./+types/method-sheet";
import { methodToRead } from "./method.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, msg`Data sheet: ${loaderData?.method.title ?? ""}`);

export async function loader({ params, request }: Route.LoaderArgs) {
  const method = withQuantities(await methodToRead(params, request));
  return { method, rules: (await currentHouseRules(await database())).data };
}

export default function MethodSheet({ loaderData: { method, rules } }: Route.ComponentProps) {
  return <SheetPage key={method.id} method={method} rules={rules} record={null} />;
}
