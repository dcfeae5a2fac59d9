import { data } from "react-router";
import { database } from "~/server/database/current";
import { currentHouseRules, saveHouseRules } from "~/server/repositories/house-rules";
import { readHouseRulesForm } from "../features/house-rules/form.server";
import { HouseRulesPage } from "../features/house-rules/house-rules-page";
import type { Route } from "./+types/house-rules";

export const meta: Route.MetaFunction = () => [{ title: "House rules · Steady Bead" }];

export async function loader() {
  return { rules: (await currentHouseRules(await database())).data };
}

export async function action({ request }: Route.ActionArgs) {
  const form = await request.formData().catch(() => new FormData());
  const read = readHouseRulesForm(form);
  if ("problems" in read) return data({ problems: read.problems, saved: false }, { status: 400 });
  await saveHouseRules(await database(), read.rules);
  return { problems: {}, saved: true };
}

export default function HouseRulesRoute({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <HouseRulesPage
      rules={loaderData.rules}
      problems={actionData?.problems ?? {}}
      saved={actionData?.saved}
    />
  );
}
