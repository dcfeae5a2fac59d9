import { withQuantities } from "~/formats/earlier-methods";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { SheetPage } from "../features/paper/sheet-page";
import type { Route } from "./+types/method-sheet";
import { methodFrom } from "./method.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Data sheet: ${loaderData?.method.title ?? ""} · Steady Bead` },
];

export async function loader({ params, request }: Route.LoaderArgs) {
  const method = withQuantities(await methodFrom(params, request));
  return { method, rules: (await currentHouseRules(await database())).data };
}

export default function MethodSheet({ loaderData: { method, rules } }: Route.ComponentProps) {
  return <SheetPage key={method.id} method={method} rules={rules} record={null} />;
}
