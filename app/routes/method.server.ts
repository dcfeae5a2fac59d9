import { data, redirect, type RouterContextProvider } from "react-router";
import { isShipped } from "~/catalog/methods";
import type { Method } from "~/core/method";
import { readMethodFile } from "~/formats/method-file";
import { methodProblemWords } from "~/words/method-problems";
import { database } from "~/server/lab/current";
import { byProblems } from "~/server/commands/deed";
import { labWords } from "~/server/queries/in-words";
import { offeredMethod } from "~/server/queries/methods";
import { saveMethod } from "~/server/commands/methods";
import { addressOfRequest } from "../request-context";
import { formTexts } from "./body.server";
import { msg } from "~/core/text";

/** The method of an address, in the version that it asks for; else the 404 page. */
export async function methodFrom(params: { methodId: string }, request: Request): Promise<Method> {
  const asked = new URL(request.url).searchParams.get("version");
  const version = asked !== null && /^\d{1,6}$/.test(asked) ? Number(asked) : undefined;
  const method = await offeredMethod(await database(), params.methodId, version);
  if (!method) throw data("There is no such method.", { status: 404 });
  return method;
}

/** The same in the words of the lab: to be read, not to be saved. */
export async function methodToRead(params: { methodId: string }, request: Request): Promise<Method> {
  return (await labWords(await database())).method(await methodFrom(params, request));
}

/** Saves what the editor posts as the next version of its method; what is wrong with it is told by path. */
export async function saveFromForm(request: Request, context: Readonly<RouterContextProvider>) {
  const { method: text = "", person = "", reason = "" } = await formTexts(request);
  const read = readMethodFile(text);
  if ("problems" in read) return data(read, { status: 400 });
  const { method } = read;
  const unsaid = byProblems({ person, reason });
  if (unsaid) {
    const problems = Object.entries(unsaid).map(([path, message]) => ({ path, message }));
    return data({ problems }, { status: 400 });
  }
  if (isShipped(method.id)) {
    const message = msg`The library's own methods stay as they are: save a copy`;
    return data({ problems: [{ path: "id", message }] }, { status: 400 });
  }
  const from = context.get(addressOfRequest);
  const saved = await saveMethod(await database(), method, {
    person: person.trim(),
    reason: reason.trim(),
    from,
  });
  if (!saved.ok)
    return data(
      { problems: [{ path: "the whole", message: methodProblemWords(saved.problem) }] },
      { status: 400 },
    );
  return redirect(`/methods/${encodeURIComponent(method.id)}`);
}
