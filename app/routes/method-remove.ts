import { data, redirect } from "react-router";
import { database } from "~/server/lab/current";
import { byProblems } from "~/server/commands/deed";
import { bringMethodBack, removeMethod } from "~/server/commands/methods";
import { addressOfRequest } from "../request-context";
import type { Route } from "./+types/method-remove";
import { formTexts } from "./body.server";
import { isShipped } from "~/catalog/methods";

/** Deletes a method of one's own that no run follows, retires one that runs follow, or brings it back. */
export async function action({ request, params: { methodId }, context }: Route.ActionArgs) {
  const { person = "", reason = "", back } = await formTexts(request);
  const problems = byProblems({ person, reason });
  if (problems) return data({ problems }, { status: 400 });
  if (isShipped(methodId))
    return data({ problems: { form: "The library's own methods stay as they are" } }, { status: 422 });
  const by = { person: person.trim(), reason: reason.trim(), from: context.get(addressOfRequest) };
  const db = await database();
  const done =
    back === "yes" ? await bringMethodBack(db, methodId, by) : await removeMethod(db, methodId, by);
  if (!done) throw data("There is no such method.", { status: 404 });
  return redirect(done === "deleted" ? "/methods" : `/methods/${encodeURIComponent(methodId)}`);
}

/** There is nothing to look at here. */
export function loader({ params }: Route.LoaderArgs) {
  return redirect(`/methods/${encodeURIComponent(params.methodId)}`);
}
