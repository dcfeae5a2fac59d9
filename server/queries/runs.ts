import { run } from "../database/schema";
import type { Connection } from "../database/types";
import { desc, eq, like, and, ne, count } from "drizzle-orm";
import type { RunListItem, RunSearchResult } from "../../protocol/answers";

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
