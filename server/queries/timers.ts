import { timer, run, stage } from "../database/schema";
import type { TimerRecord } from "../../core/record";
import type { DatabaseConnection } from "../database/types";
import type { RunRecord } from "../../core/run";
import type { TimersAnswer, TimerView } from "../../protocol/answers";
import { eq, and, isNull, asc } from "drizzle-orm";
import { inspectClock } from "../clock";

export type Row = typeof timer.$inferSelect;

export const timerOf = (row: Row): TimerRecord => {
  const { id, trialId, what, flask, counts, seconds, strict, outcome, person } = row;
  const iso = (at: Date | null) => at?.toISOString() ?? null;
  return {
    id,
    trialId,
    what,
    flask,
    counts,
    seconds,
    strict,
    plannedAt: iso(row.plannedAt),
    startedAt: iso(row.startedAt),
    endedAt: iso(row.endedAt),
    outcome,
    person,
  };
};

/** The timers that are planned or running in open runs, as all screens show them. */
export async function runningTimers(db: DatabaseConnection, now = new Date()): Promise<TimersAnswer> {
  const rows = await db
    .select({ timer, runId: run.id, runTitle: run.title, stageKey: stage.key })
    .from(timer)
    .innerJoin(stage, eq(stage.id, timer.stageId))
    .innerJoin(run, eq(run.id, stage.runId))
    .where(and(isNull(timer.endedAt), eq(run.status, "open")))
    .orderBy(asc(timer.seq));
  return {
    now: now.getTime(),
    timers: rows.map(({ timer: row, ...of }) => ({ ...timerOf(row), ...of })),
    clock: await inspectClock(db, now),
  };
}

/** The same of one run, as its record tells them. */
export function timersOf({ id: runId, title: runTitle, status, stages }: RunRecord): TimerView[] {
  if (status !== "open") return [];
  return stages.flatMap(({ key: stageKey, timers = [] }) =>
    timers.filter(({ endedAt }) => endedAt === null).map((t) => ({ ...t, runId, runTitle, stageKey })),
  );
}
