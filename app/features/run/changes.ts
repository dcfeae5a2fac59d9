import type { RunRequest } from "~/formats/requests";
import type { RunState } from "~/server/repositories/run-state";

/** What the server answers to a change; `unreachable` is said by the browser when no answer came. */
export type ChangeAnswer =
  | { readonly status: "done"; readonly state: RunState | null }
  | { readonly status: "refused" | "malformed" | "missing"; readonly message: string; readonly proposal?: string }
  | { readonly status: "unreachable"; readonly message: string };

const unreachable: ChangeAnswer = {
  status: "unreachable",
  message: "Not saved yet: the server does not answer. What you typed is kept; Enter tries again.",
};

/** Sends one change. Never throws: a dead network is an answer like others. */
export async function postChange(runId: string, request: RunRequest): Promise<ChangeAnswer> {
  try {
    const response = await fetch(`/runs/${runId}/changes`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(request),
    });
    return response.status >= 500 ? unreachable : ((await response.json()) as ChangeAnswer);
  } catch {
    return unreachable;
  }
}
