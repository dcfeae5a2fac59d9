import { type ChangeAnswer, revisionHeader, type SavedAnswer } from "~/protocol/answers";
import { checkRunRequest } from "~/protocol/requests";
import { database } from "~/server/lab/current";
import { labWords } from "~/server/queries/in-words";
import { changeRun } from "~/server/commands/change-run";
import { forInstructors } from "../access/for-instructors.server";
import { isEnough } from "../access/route-access";
import { addressOfRequest, viewerOfRequest } from "../request-context";
import type { Route } from "./+types/run-changes";
import { jsonBody } from "./body.server";
import { runIdFrom } from "./run-id.server";
import { msg } from "~/core/text";

const httpStatus = { done: 200, refused: 422, malformed: 400, missing: 404, conflict: 409 } as const;

const answer = (body: SavedAnswer, status: number) => Response.json(body, { status });

/** What a screen is told that has this revision of the run. */
async function updateFor(revision: string | null, changed: ChangeAnswer): Promise<SavedAnswer> {
  if (changed.status !== "done") return changed;
  const { state, step } = changed;
  if (step && revision === String(step.from)) return { status: "done", update: step };
  return { status: "done", update: state && (await labWords(await database())).state(state) };
}

/** Changes to a run, as JSON. The answer to one that was made carries the run as it now is, or the step to it. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const runId = runIdFrom(params);
  const checked = checkRunRequest(await jsonBody(request));
  if (!checked.ok) {
    return answer(
      { status: "malformed", message: msg`This request cannot be read: ${checked.problem.message}` },
      400,
    );
  }
  // House rules of one run are house rules.
  if (checked.value.intent === "rules" && !isEnough(context.get(viewerOfRequest)?.role ?? null, "instructor"))
    return forInstructors();
  const device = request.headers.get("X-Device") ?? "";
  const changed = await changeRun(
    await database(),
    runId,
    checked.value,
    new Date(),
    device,
    context.get(addressOfRequest),
  );
  const update = await updateFor(request.headers.get(revisionHeader), changed);
  return answer(update, httpStatus[changed.status]);
}

/** There is nothing to look at here. */
export function loader() {
  return new Response("There is nothing at this address.", { status: 404 });
}
