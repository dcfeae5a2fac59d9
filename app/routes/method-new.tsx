import { v7 as newId } from "uuid";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { EditorPage } from "../features/methods/editor/editor-page";
import { newMethod } from "../features/methods/editor/starters";
import type { Route } from "./+types/method-new";
import { saveFromForm } from "./method.server";

export const meta: Route.MetaFunction = () => [{ title: "Make a method · Steady Bead" }];

export async function loader() {
  return { id: `own-${newId()}`, rules: (await currentHouseRules(await database())).data };
}

export async function action({ request, context }: Route.ActionArgs) {
  return saveFromForm(request, context);
}

export default function MethodNew({ loaderData: { id, rules } }: Route.ComponentProps) {
  return (
    <EditorPage
      initial={newMethod(id)}
      heading={{
        title: "Make a method",
        note: "This draft already calculates. Start with the equation.",
        back: "/methods",
      }}
      rules={rules}
    />
  );
}
