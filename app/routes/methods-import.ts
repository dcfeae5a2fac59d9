import { data, redirect } from "react-router";
import { readMethodFile } from "~/formats/method-file";
import { database } from "~/server/database/current";
import { saveMethod } from "~/server/repositories/methods";
import { formTexts } from "./body.server";
import type { Route } from "./+types/methods-import";
import { isShipped } from "./method.server";

/** Takes a method from the text of a file; one of the library's ids is kept as one's own beside it. */
export async function action({ request }: Route.ActionArgs) {
  const { text = "" } = await formTexts(request);
  const read = readMethodFile(text);
  if ("problems" in read) return data(read, { status: 400 });
  const { method } = read;
  const id = isShipped(method.id) ? `${method.id}-imported` : method.id;
  const saved = await saveMethod(await database(), { ...method, id });
  if (!saved.ok)
    return data({ problems: [{ path: "the whole", message: saved.problem.message }] }, { status: 400 });
  return redirect(`/methods/${encodeURIComponent(id)}`);
}

/** There is nothing to look at here. */
export function loader() {
  return redirect("/methods");
}
