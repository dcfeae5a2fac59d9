import { v7 as newId } from "uuid";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { EditorPage } from "../features/methods/editor/editor-page";
import { newMethod } from "../features/methods/editor/starters";
import type { Route } from "./+types/method-new";
import { saveFromForm } from "./method.server";
import { useSay } from "../words/text";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Make a method`);

export async function loader() {
  return { id: `own-${newId()}`, rules: (await currentHouseRules(await database())).data };
}

export async function action({ request, context }: Route.ActionArgs) {
  return saveFromForm(request, context);
}

export default function MethodNew({ loaderData: { id, rules } }: Route.ComponentProps) {
  const say = useSay();
  return (
    <EditorPage
      initial={newMethod(id)}
      heading={{
        title: say`Make a method`,
        note: say`This draft already calculates. Start with the equation.`,
        back: "/methods",
      }}
      rules={rules}
    />
  );
}
