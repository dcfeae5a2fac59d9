import { PaperPage } from "../features/paper/paper-page";
import type { Route } from "./+types/run-paper";
import { runFrom } from "./run-id.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `From paper: ${loaderData?.record.title ?? ""} · Steady Bead` },
];

export const loader = ({ params }: Route.LoaderArgs) => runFrom(params);

export default function RunPaper({ loaderData }: Route.ComponentProps) {
  return <PaperPage key={loaderData.record.id} loaded={loaderData} />;
}
