import { data } from "react-router";
import { validate } from "uuid";
import type { RunState } from "~/protocol/answers";
import { database } from "~/server/lab/current";
import { labWords } from "~/server/queries/in-words";
import { loadRunState } from "~/server/queries/stored-run";

/**
 * What is read of a run. One that cannot be read, since its rows are damaged or contradict each other, is told in words and in the
 * log, and takes nothing else with it.
 */
export async function readable<T>(runId: string, read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    console.error(`Run ${runId} cannot be read:`, error);
    throw data(
      "Its data are damaged. All other runs work. The Lab screen can restore this one from a backup.",
      { status: 422 },
    );
  }
}

/** The run's id from the address, or the 404 page. */
export function runIdFrom(params: { runId: string }): string {
  if (!validate(params.runId)) throw data("There is no such run.", { status: 404 });
  return params.runId;
}

/** A run as screens are told it; null where there is none. */
export async function runInWords(runId: string): Promise<RunState | null> {
  const db = await database();
  const state = await loadRunState(db, runId);
  return state && (await labWords(db)).state(state);
}

/** The run of an address as it is now, or the 404 page. */
export async function runFrom(params: { runId: string }): Promise<RunState> {
  const runId = runIdFrom(params);
  const state = await readable(runId, () => runInWords(runId));
  if (!state) throw data("There is no such run.", { status: 404 });
  return state;
}
