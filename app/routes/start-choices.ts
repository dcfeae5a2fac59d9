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
  const stages = await knowableFor(db, (await labWords(db)).method(method), other);
  const choices: StartChoices = { stages, unit: method.stages.at(-1)?.result.unit ?? "1" };
  return Response.json(choices, { headers: { "Cache-Control": "no-store" } });
}
