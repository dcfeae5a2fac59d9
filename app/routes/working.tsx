import { WorkingPage } from "../features/working/working-page";
import type { Route } from "./+types/working";
import { runFrom } from "./run-id.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, msg`Working: ${loaderData?.record.title ?? ""}`);

export async function loader({ params, request }: Route.LoaderArgs) {
  const { record } = await runFrom(params);
  const search = new URL(request.url).searchParams;
  return { record, stageKey: search.get("stage"), trialId: search.get("trial") };
}

export default function Working({ loaderData }: Route.ComponentProps) {
  return <WorkingPage {...loaderData} />;
}
