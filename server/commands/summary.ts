import "~/core/stages/engines";
import { eq, isNull, sql } from "drizzle-orm";
import { run, runResult } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { loadRunRecord } from "../queries/stored-run";
import { readersOf, type RunRecord } from "../../core/run";
import type { RunSummary } from "../../protocol/answers";
import { evaluateRun, type ListedRun, listedRun, rememberedStages } from "../../core/evaluate";
import type { RunEvaluation } from "../../core/stages";
import { inEnglish } from "../../core/text";

/** Records of the server are never changed in place. */
const remembered = rememberedStages();

function evaluated(record: RunRecord): RunEvaluation {
  const evaluation = evaluateRun(record, undefined, remembered);
  for (const { stageKey, error } of evaluation.failures)
    console.error(`Run ${record.id}, stage ${stageKey}:`, error);
  return evaluation;
}

/** The results of a run that is closed; of one that is open there are none yet. */
function resultRows(
  { id: runId, status }: RunRecord,
  results: ListedRun["results"],
): (typeof runResult.$inferInsert)[] {
  if (status === "open") return [];
  return results.flatMap(({ definition: { symbol, name, unit }, value, u, ...row }, position) =>
    Number.isFinite(value) && Number.isFinite(u)
      ? [{ ...row, runId, position, symbol, name: inEnglish(name), unit, value, u }]
      : [],
  );
}

/** What lists show of a run, and its results. */
export function listed(record: RunRecord, found = listedRun(evaluated(record))) {
  const { results, ...summary } = found;
  return {
    lists: { summary, people: readersOf(record).join(", ") },
    results: resultRows(record, results),
  };
}

export const summarize = (record: RunRecord): RunSummary => listed(record).lists.summary;

/** Writes the results of a run in place of those that were there. */
async function writeResults(db: DatabaseConnection, runId: string, rows: ReturnType<typeof resultRows>) {
  await db.delete(runResult).where(eq(runResult.runId, runId));
  if (rows.length > 0) await db.insert(runResult).values(rows);
}

/** Writes the run's own row: what lists show of it, and that there is one change more. */
export async function writeRun(
  db: DatabaseConnection,
  record: RunRecord,
  own: Partial<typeof run.$inferInsert>,
  now: Date,
): Promise<void> {
  const { lists, results } = listed(record);
  await db
    .update(run)
    .set({ ...own, ...lists, updatedAt: now, revision: sql`${run.revision} + 1` })
    .where(eq(run.id, record.id));
  if (record.status !== "open" || own.status !== undefined) await writeResults(db, record.id, results);
}

/** Evaluates what is saved, and keeps the small summary that lists show. */
export async function refreshSummary(db: DatabaseConnection, runId: string, now: Date): Promise<void> {
  const record = await loadRunRecord(db, runId);
  if (record) await writeRun(db, record, {}, now);
}

/** Writes what lists show of runs from before it was written down. Nothing of the runs themselves is touched. */
export async function fillInLists(db: DatabaseConnection): Promise<void> {
  const rows = await db.select({ id: run.id }).from(run).where(isNull(run.people));
  for (const { id } of rows) {
    const record = await loadRunRecord(db, id);
    if (!record) continue;
    const { lists, results } = listed(record);
    await writeResults(db, id, results);
    await db.update(run).set({ people: lists.people }).where(eq(run.id, id));
  }
}
