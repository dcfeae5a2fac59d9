import { choicesFor, methodDone, methodOf } from "~/core/run";
import type { StartChoices } from "~/protocol/known";
import { database } from "~/server/lab/current";
import { labWords } from "~/server/queries/in-words";
import { knowableFor } from "~/server/queries/knowable";
import { offeredMethod } from "~/server/queries/methods";
import { loadRunRecord } from "~/server/queries/stored-run";
import type { Route } from "./+types/start-choices";

/** Which stages of a method need not be done in a run that begins, for the dialog that begins one. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const db = await database();
  const method = await offeredMethod(db, params.methodId);
  if (!method) throw new Response("There is no such method.", { status: 404 });
  const like = new URL(request.url).searchParams.get("like") ?? "";
  const other = like === "" ? null : await loadRunRecord(db, like).catch(() => null);
  // A run like another one leaves out what that leaves out, and asks for what that asks for.
  const as = other?.method.id === method.id ? choicesFor(method, other.choices ?? []) : [];
  const done = methodDone({ method: (await labWords(db)).method(method), choices: as });
  const unit = methodOf({ method, choices: as }).stages.at(-1)?.result.unit ?? "1";
  const choices: StartChoices = { stages: await knowableFor(db, done, other), unit };
  return Response.json(choices, { headers: { "Cache-Control": "no-store" } });
}
