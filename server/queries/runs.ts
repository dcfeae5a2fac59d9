import { method, run } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { desc, eq, like, and, ne, count, sql } from "drizzle-orm";
import type { RunListItem, RunSearchResult } from "../../protocol/answers";

const listed = {
  id: run.id,
  title: run.title,
  sample: run.sample,
  bench: run.bench,
  status: run.status,
  methodId: run.methodId,
  methodTitle: method.title,
  startedAt: run.startedAt,
  finishedAt: run.finishedAt,
  summary: run.summary,
};

/** The version of the method that a run follows. */
const ofRun = and(eq(method.id, run.methodId), eq(method.version, run.methodVersion));

/** Where a run was carried out, or by whom; empty where there is no such run. */
export async function benchOf(db: DatabaseConnection, runId: string): Promise<string> {
  const [found] = await db
    .select({ bench: run.bench })
    .from(run)
    .where(eq(sql`${run.id}::text`, runId));
  return found?.bench ?? "";
}

/** Runs in progress, the one last worked on first. */
export async function listOpenRuns(db: DatabaseConnection, limit = 200): Promise<RunListItem[]> {
  return db
    .select(listed)
    .from(run)
    .innerJoin(method, ofRun)
    .where(eq(run.status, "open"))
    .orderBy(desc(run.updatedAt))
    .limit(limit);
}

/**
 * Finished runs whose title, sample or bench holds the words, newest first; those that were archived too where words are given, or
 * these alone where they are asked for.
 */
export async function searchFinishedRuns(
  db: DatabaseConnection,
  query: string,
  { limit = 12, archived = false } = {},
): Promise<RunSearchResult> {
  const words = query.slice(0, 200).trim().split(/\s+/).filter(Boolean);
  const hit = (word: string) =>
    like(run.search, `%${word.toLowerCase().replace(/[\\%_]/g, (c) => `\\${c}`)}%`);
  const where = and(
    archived
      ? eq(run.status, "archived")
      : words.length > 0
        ? ne(run.status, "open")
        : eq(run.status, "finished"),
    ...words.map(hit),
  );
  const runs = await db
    .select(listed)
    .from(run)
    .innerJoin(method, ofRun)
    .where(where)
    .orderBy(desc(run.finishedAt))
    .limit(limit);
  const [totals] = await db.select({ total: count() }).from(run).where(where);
  return { runs, total: totals?.total ?? 0 };
}
