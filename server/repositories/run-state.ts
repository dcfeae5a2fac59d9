import type { RunRecord } from "../../core/run";
import type { Connection } from "../database/connection";
import { lastChange } from "./run-changes";
import { loadRunRecord } from "./run-record";

/** What the run screen works on: the record as saved, and the change that undo would take back. */
export interface RunState {
  readonly record: RunRecord;
  readonly undo: { readonly eventId: string; readonly description: string } | null;
}

export async function loadRunState(db: Connection, runId: string): Promise<RunState | null> {
  const record = await loadRunRecord(db, runId);
  if (!record) return null;
  const last = await lastChange(db, runId);
  return { record, undo: last ? { eventId: last.id, description: last.description } : null };
}
