import { data, redirect } from "react-router";
import { readMethodFile } from "~/formats/method-file";
import { methodProblemWords } from "~/words/method-problems";
import { database } from "~/server/lab/current";
import { saveMethod } from "~/server/commands/methods";
import { addressOfRequest } from "../request-context";
import { formTexts } from "./body.server";
import type { Route } from "./+types/methods-import";
import { isShipped } from "~/catalog/methods";

/** Takes a method from the text of a file; one of the library's ids is kept as one's own beside it. */
export async function action({ request, context }: Route.ActionArgs) {
  const { text = "", person = "", file = "" } = await formTexts(request);
  const read = readMethodFile(text);
  if ("problems" in read) return data(read, { status: 400 });
  const { method } = read;
  const id = isShipped(method.id) ? `${method.id}-imported` : method.id;
  const saved = await saveMethod(
    await database(),
    { ...method, id },
    {
      person: person.trim().slice(0, 120),
      reason: `brought in from the file ${file.slice(0, 200) || "without a name"}`,
      from: context.get(addressOfRequest),
    },
  );
  if (!saved.ok)
    return data(
      { problems: [{ path: "the whole", message: methodProblemWords(saved.problem) }] },
      { status: 400 },
    );
  return redirect(`/methods/${encodeURIComponent(id)}`);
}

/** There is nothing to look at here. */
export function loader() {
  return redirect("/methods");
}
