import { dropsPerMl, replicatesNeeded } from "~/core/rules";
import { withQuantities } from "~/formats/earlier-methods";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { PlanPage } from "../features/methods/plan-page";
import type { Route } from "./+types/method-plan";
import { methodToRead } from "./method.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, msg`Plan: ${loaderData?.method.title ?? ""}`);

export async function loader({ params, request }: Route.LoaderArgs) {
  const method = withQuantities(await methodToRead(params, request));
  const rules = (await currentHouseRules(await database())).data;
  const dropMl = 1 / Number(dropsPerMl(rules));
  return {
    method,
    buretteMl: rules.burette.capacityMl,
    dropMl,
    replicates: replicatesNeeded(rules.agreement),
  };
}

export default function MethodPlan({ loaderData }: Route.ComponentProps) {
  return <PlanPage key={loaderData.method.id} {...loaderData} />;
}
