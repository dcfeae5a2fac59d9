import { PaperPage } from "../features/paper/paper-page";
import type { Route } from "./+types/run-paper";
import { runFrom } from "./run-id.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, msg`From paper: ${loaderData?.record.title ?? ""}`);

export const loader = ({ params }: Route.LoaderArgs) => runFrom(params);

export default function RunPaper({ loaderData }: Route.ComponentProps) {
  return <PaperPage key={loaderData.record.id} loaded={loaderData} />;
}
