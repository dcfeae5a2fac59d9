import type { ChangeAnswer } from "~/protocol/answers";
import { checkRunRequest } from "~/protocol/requests";
import { database } from "~/server/lab/current";
import { changeRun } from "~/server/commands/change-run";
import { addressOfRequest } from "../request-context";
import type { Route } from "./+types/run-changes";
import { jsonBody } from "./body.server";
import { runIdFrom } from "./run-id.server";

const httpStatus = { done: 200, refused: 422, malformed: 400, missing: 404, conflict: 409 } as const;

const answer = (body: ChangeAnswer, status: number) => Response.json(body, { status });

/** Changes to a run, as JSON. The answer to one that was made carries the run as it now is. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const runId = runIdFrom(params);
  const checked = checkRunRequest(await jsonBody(request));
  if (!checked.ok) {
    return answer(
      { status: "malformed", message: `This request cannot be read: ${checked.problem.message}` },
      400,
    );
  }
  const device = request.headers.get("X-Device") ?? "";
  const changed = await changeRun(
    await database(),
    runId,
    checked.value,
    new Date(),
    device,
    context.get(addressOfRequest),
  );
  return answer(changed, httpStatus[changed.status]);
}

/** There is nothing to look at here. */
export function loader() {
  return new Response("There is nothing at this address.", { status: 404 });
}
