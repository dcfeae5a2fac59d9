import type { ChangeAnswer } from "~/formats/answers";
import type { RunRequest } from "~/formats/requests";
import { pressOver } from "../ui/press";
import { device } from "./device";

interface Unreachable {
  readonly status: "unreachable";
  readonly message: string;
  /** True where the server itself said why. */
  readonly told?: boolean;
}

/** What became of a change: the server's answer, that none came, or that it waits in this browser to be sent. */
export type Outcome = ChangeAnswer | Unreachable | { readonly status: "waiting"; readonly message: string };

/** True where a change is on the server, or safe in this browser on its way there. */
export const isTaken = (answer: Outcome): answer is Extract<Outcome, { status: "done" | "waiting" }> =>
  answer.status === "done" || answer.status === "waiting";

const unreachable: Unreachable = {
  status: "unreachable",
  message: "Not saved yet: the server does not answer. What you typed is kept; Enter tries again.",
};

/** Browsers keep no more than this alive behind a page that is left, bytes. */
const mostKeptAlive = 30_000;

/** How long to wait for an answer before the server counts as out of reach, ms. */
const patienceMs = 8000;

/** Sends one change. Never throws: a dead network is an answer like others. What is being pressed is not moved by it. */
export async function postChange(runId: string, request: RunRequest): Promise<ChangeAnswer | Unreachable> {
  const answer = await post(runId, request);
  await pressOver();
  return answer;
}

async function post(runId: string, request: RunRequest): Promise<ChangeAnswer | Unreachable> {
  const body = JSON.stringify(request);
  try {
    const response = await fetch(`/runs/${runId}/changes`, {
      method: "POST",
      headers: { "Content-Type": "application/json", "X-Device": device },
      body,
      // What was sent arrives even when the page is left at that moment.
      keepalive: body.length < mostKeptAlive,
      signal: AbortSignal.timeout(patienceMs),
    });
    if (response.status === 507) {
      const { message } = (await response.json()) as { message?: string };
      return { status: "unreachable", message: message ?? unreachable.message, told: true };
    }
    return response.status >= 500 ? unreachable : ((await response.json()) as ChangeAnswer);
  } catch {
    return unreachable;
  }
}
