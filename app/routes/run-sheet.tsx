import { SheetPage } from "../features/paper/sheet-page";
import type { Route } from "./+types/run-sheet";
import { runFrom } from "./run-id.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Data sheet: ${loaderData?.record.title ?? ""} · Steady Bead` },
];

export async function loader({ params }: Route.LoaderArgs) {
  return { record: (await runFrom(params)).record };
}

export default function RunSheet({ loaderData: { record } }: Route.ComponentProps) {
  return <SheetPage key={record.id} method={record.method} rules={record.houseRules} record={record} />;
}
