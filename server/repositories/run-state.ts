import type { RunState } from "../../formats/answers";
import type { Connection } from "../database/types";
import { undoOffer } from "./run-changes";
import { loadRunRecord } from "./run-record";

/** A run and the change that undo would take back; null where there is no such run. */
export async function loadRunState(db: Connection, runId: string): Promise<RunState | null> {
  const record = await loadRunRecord(db, runId);
  if (!record) return null;
  return { record, undo: await undoOffer(db, runId) };
}
