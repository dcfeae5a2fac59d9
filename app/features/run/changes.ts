import type { ChangeAnswer } from "~/formats/answers";
import type { RunRequest } from "~/formats/requests";

/** What became of a change: the server's answer, or that none came. */
export type Outcome = ChangeAnswer | { readonly status: "unreachable"; readonly message: string };

const unreachable: Outcome = {
  status: "unreachable",
  message: "Not saved yet: the server does not answer. What you typed is kept; Enter tries again.",
};

/** Sends one change. Never throws: a dead network is an answer like others. */
export async function postChange(runId: string, request: RunRequest): Promise<Outcome> {
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
