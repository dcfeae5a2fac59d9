import { WorkingPage } from "../features/working/working-page";
import type { Route } from "./+types/working";
import { runFrom } from "./run-id.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Working: ${loaderData?.record.title ?? ""} · Steady Bead` },
];

export async function loader({ params, request }: Route.LoaderArgs) {
  const { record } = await runFrom(params);
  const search = new URL(request.url).searchParams;
  return { record, stageKey: search.get("stage"), trialId: search.get("trial") };
}

export default function Working({ loaderData }: Route.ComponentProps) {
  return <WorkingPage {...loaderData} />;
}
