import "~/core/stages/engines";
import { eq, sql } from "drizzle-orm";
import { run } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { loadRunRecord } from "../queries/stored-run";
import type { RunRecord } from "../../core/run";
import type { RunSummary } from "../../protocol/answers";
import { evaluateRun, rememberedStages } from "../../core/evaluate";

/** Records of the server are never changed in place. */
const remembered = rememberedStages();

export function summarize(record: RunRecord): RunSummary {
  const { chain, next, state, result, failures } = evaluateRun(record, undefined, remembered);
  for (const { stageKey, error } of failures) console.error(`Run ${record.id}, stage ${stageKey}:`, error);
  return { chain, next, state, result };
}

/** Writes the run's own row: what lists show of it, and that there is one change more. */
export async function writeRun(
  db: DatabaseConnection,
  record: RunRecord,
  own: Partial<typeof run.$inferInsert>,
  now: Date,
): Promise<void> {
  await db
    .update(run)
    .set({ ...own, summary: summarize(record), updatedAt: now, revision: sql`${run.revision} + 1` })
    .where(eq(run.id, record.id));
}

/** Evaluates what is saved, and keeps the small summary that lists show. */
export async function refreshSummary(db: DatabaseConnection, runId: string, now: Date): Promise<void> {
  const record = await loadRunRecord(db, runId);
  if (record) await writeRun(db, record, {}, now);
}
