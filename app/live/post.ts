import { revisionHeader, type SavedAnswer } from "~/protocol/answers";
import type { RunRequest } from "~/protocol/requests";
import { pressOver } from "../ui/press";
import { device } from "./device";
import { sameEra } from "./era";
import { setReached } from "./reach";
import { msg, type Phrase } from "~/core/text";

interface Unreachable {
  readonly status: "unreachable";
  readonly message: Phrase;
  /** True where the server itself said why. */
  readonly byServer?: boolean;
}

/** The server answered, but failed on this change: sending it for ever would not help. */
interface Failed {
  readonly status: "failed";
  readonly message: Phrase;
}

/** What became of a change that was sent. */
export type Posted = SavedAnswer | Unreachable | Failed;

/** What became of a change: the server's answer, that none came, or that it waits in this browser to be sent. */
export type ChangeOutcome = Posted | { readonly status: "waiting"; readonly message: Phrase };

/** True where a change is on the server, or safe in this browser on its way there. */
export const isTaken = (
  answer: ChangeOutcome,
): answer is Extract<ChangeOutcome, { status: "done" | "waiting" }> =>
  answer.status === "done" || answer.status === "waiting";

const unreachable: Unreachable = {
  status: "unreachable",
  message: msg`Not saved: the server does not answer. What you entered is still there; press Enter to try again.`,
};

const failed: Failed = {
  status: "failed",
  message: msg`The server failed on this change, so nothing was saved. Its log has the details`,
};

/**
 * Answers of something between here and the server, of a full disk, of a server that has too much to do, or of one that wants to know who
 * this is: they pass.
 */
const passing: ReadonlySet<number> = new Set([401, 429, 502, 503, 504, 507]);

/** Browsers keep no more than this alive behind a page that is left, bytes. */
const mostKeptAlive = 30_000;

/** How long to wait for an answer before the server counts as out of reach, ms. */
const patienceMs = 8000;

/**
 * Sends one change, from a screen that has this revision of the run where it shows it. Never throws: a dead network is an answer
 * like others. What is being pressed is not moved by it.
 */
export async function postChange(runId: string, request: RunRequest, revision?: number): Promise<Posted> {
  const answer = await post(runId, request, revision);
  await pressOver();
  return answer;
}

async function post(runId: string, request: RunRequest, revision: number | undefined): Promise<Posted> {
  const body = JSON.stringify(request);
  try {
    const response = await fetch(`/runs/${runId}/changes`, {
      method: "POST",
      headers: {
        "Content-Type": "application/json",
        "X-Device": device,
        ...(revision === undefined ? {} : { [revisionHeader]: String(revision) }),
      },
      body,
      // What was sent arrives even when the page is left at that moment.
      keepalive: body.length < mostKeptAlive,
      signal: AbortSignal.timeout(patienceMs),
    });
    sameEra(response);
    if (passing.has(response.status)) {
      const { message } = (await response.json().catch(() => ({}))) as { message?: string };
      return message === undefined ? unreachable : { status: "unreachable", message, byServer: true };
    }
    if (response.status >= 500) return failed;
    const answer = (await response.json().catch(() => null)) as SavedAnswer | null;
    // Something else than this product answers at its address.
    return answer && "status" in answer ? answer : failed;
  } catch {
    setReached(false);
    return unreachable;
  }
}
