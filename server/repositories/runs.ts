import { and, count, desc, eq, like, ne, sql } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { evaluateRun } from "../../core/evaluate";
import type { RunRecord } from "../../core/run";
import { failure, type Result, success } from "../../core/result";
import type { RunListItem, RunSearchResult, RunSummary } from "../../protocol/answers";
import type { StartRun } from "../../protocol/requests";
import type { Connection, Database } from "../database/types";
import { run, stage } from "../database/schema";
import { currentHouseRules } from "./house-rules";
import { findMethod, isRetired } from "./methods";
import { preselectBottles } from "./preselect";
import { loadRunRecord } from "./run-record";

export function summarize(record: RunRecord): RunSummary {
  const { chain, next, state, result, failures } = evaluateRun(record);
  for (const { stageKey, error } of failures) console.error(`Run ${record.id}, stage ${stageKey}:`, error);
  return { chain, next, state, result };
}

/** Evaluates what is saved, keeps the small summary that lists show, and returns the run as it now is. */
export async function refreshSummary(db: Connection, runId: string, now: Date): Promise<RunRecord | null> {
  const record = await loadRunRecord(db, runId);
  if (record)
    await db
      .update(run)
      .set({ summary: summarize(record), updatedAt: now, revision: sql`${run.revision} + 1` })
      .where(eq(run.id, runId));
  return record;
}

/** The text that a run is found by. */
export const searchText = (about: { title: string; sample: string; bench: string }) =>
  `${about.title} ${about.sample} ${about.bench}`.toLowerCase();

/** Begins a run by the newest version of a method and the house rules in force, and returns its id. */
export async function startRun(db: Database, request: StartRun, now = new Date()): Promise<Result<string>> {
  const chosen = await findMethod(db, request.methodId);
  if (!chosen) return failure("Choose a method from the library");
  if (await isRetired(db, chosen.id))
    return failure("This method was retired: bring it back on its page first");
  return db.transaction(async (tx) => {
    const id = newId({ msecs: now.getTime() });
    await tx.insert(run).values({
      id,
      methodId: chosen.id,
      methodVersion: chosen.version,
      houseRulesId: (await currentHouseRules(tx)).id,
      title: request.title.trim(),
      sample: request.sample.trim(),
      bench: request.bench.trim(),
      search: searchText(request),
      status: "open",
      startedAt: now,
      updatedAt: now,
      summary: { chain: [], next: "", state: "", result: null },
    });
    await tx
      .insert(stage)
      .values(chosen.stages.map(({ key }, position) => ({ id: newId(), runId: id, key, position })));
    const begun = await loadRunRecord(tx, id);
    if (begun) await preselectBottles(tx, begun, now);
    await refreshSummary(tx, id, now);
    return success(id);
  });
}

const listed = {
  id: run.id,
  title: run.title,
  sample: run.sample,
  bench: run.bench,
  status: run.status,
  startedAt: run.startedAt,
  finishedAt: run.finishedAt,
  summary: run.summary,
};

/** The method of the run that was begun last: the one that the next run will probably follow. */
export async function methodLastBegun(db: Connection): Promise<string | null> {
  const [last] = await db.select({ methodId: run.methodId }).from(run).orderBy(desc(run.id)).limit(1);
  return last?.methodId ?? null;
}

/** Runs in progress, the one last worked on first. */
export async function listOpenRuns(db: Connection, limit = 50): Promise<RunListItem[]> {
  return db.select(listed).from(run).where(eq(run.status, "open")).orderBy(desc(run.updatedAt)).limit(limit);
}

/** Finished (and, when searched for, archived) runs whose title, sample or bench holds the words; newest first. */
export async function searchFinishedRuns(
  db: Connection,
  query: string,
  limit = 12,
): Promise<RunSearchResult> {
  const words = query.slice(0, 200).trim().split(/\s+/).filter(Boolean);
  const hit = (word: string) =>
    like(run.search, `%${word.toLowerCase().replace(/[\\%_]/g, (c) => `\\${c}`)}%`);
  const where = and(
    words.length > 0 ? ne(run.status, "open") : eq(run.status, "finished"),
    ...words.map(hit),
  );
  const runs = await db.select(listed).from(run).where(where).orderBy(desc(run.finishedAt)).limit(limit);
  const [totals] = await db.select({ total: count() }).from(run).where(where);
  return { runs, total: totals?.total ?? 0 };
}
