import { eq } from "drizzle-orm";
import type { RunState } from "../../protocol/answers";
import type { Connection } from "../database/types";
import { run } from "../database/schema";
import { undoOffer } from "./run-events";
import { loadRunRecord } from "./run-record";

/** A run and the change that undo would take back; null where there is no such run. */
export async function loadRunState(db: Connection, runId: string): Promise<RunState | null> {
  const record = await loadRunRecord(db, runId);
  if (!record) return null;
  const [row] = await db.select({ revision: run.revision }).from(run).where(eq(run.id, runId));
  return { record, undo: await undoOffer(db, runId), revision: row?.revision ?? 0 };
}
