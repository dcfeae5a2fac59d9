import { withQuantities } from "~/formats/earlier-methods";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { findMethod } from "~/server/queries/methods";
import { draftOf } from "../features/methods/editor/draft";
import { EditorPage } from "../features/methods/editor/editor-page";
import type { Route } from "./+types/method-edit";
import { isShipped } from "~/catalog/methods";
import { methodFrom, saveFromForm } from "./method.server";
import { useSay } from "../words/text";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, msg`Edit: ${loaderData?.method.title ?? msg`method`}`);

export async function loader({ params, request }: Route.LoaderArgs) {
  const method = await methodFrom(params, request);
  const db = await database();
  const own = !isShipped(method.id);
  const copyId = async (n: number): Promise<string> => {
    const id = n === 1 ? `${method.id}-own` : `${method.id}-own-${n}`;
    return (await findMethod(db, id)) ? copyId(n + 1) : id;
  };
  return {
    method: withQuantities(method),
    own,
    id: own ? method.id : await copyId(1),
    rules: (await currentHouseRules(db)).data,
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  return saveFromForm(request, context);
}

export default function MethodEdit({ loaderData: { method, own, id, rules } }: Route.ComponentProps) {
  const say = useSay();
  const draft = draftOf(method);
  return (
    <EditorPage
      key={id}
      initial={own ? draft : { ...draft, id, title: `${method.title} (ours)` }}
      heading={{
        title: own ? say`Edit: ${method.title}` : say`Your copy of: ${method.title}`,
        note: own
          ? say`Saved as version ${method.version + 1}; runs keep the version they started with.`
          : say`The original stays in the library; this copy is yours.`,
        back: `/methods/${method.id}`,
      }}
      rules={rules}
    />
  );
}
