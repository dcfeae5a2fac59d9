import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { capitalized, trialWords } from "../../core/text";
import { presentObservation, type TimerRecord, trialName } from "../../core/record";
import { timerWords } from "../../core/method";
import { inspectClock } from "../clock";
import type { TimersAnswer } from "../../protocol/answers";
import type { RunRequest, StartTimer } from "../../protocol/requests";
import type { Connection } from "../database/types";
import { observation, run, stage, timer } from "../database/schema";
import type { Inverse } from "../database/stored";
import { type Change, done, happenedAt, missing, type Outcome, refused, remember } from "./change";
import { timerSentBefore } from "./sent-before";
import { isOutcome, openStage, writeReading } from "./write-reading";
import { supersedes } from "./take";

type Row = typeof timer.$inferSelect;
type Request<I extends RunRequest["intent"]> = Extract<RunRequest, { intent: I }>;

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

/** Timers of these stages, in the order in which they were set. */
export const timersOfStages = (db: Connection, stageIds: readonly string[]): Promise<Row[]> =>
  stageIds.length === 0
    ? Promise.resolve([])
    : db
        .select()
        .from(timer)
        .where(inArray(timer.stageId, [...stageIds]))
        .orderBy(asc(timer.seq));

/** The timers that are planned or running in open runs, as all screens show them. */
export async function runningTimers(db: Connection, now = new Date()): Promise<TimersAnswer> {
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

const flaskOf = ({ flask }: Pick<Row, "flask">) => (flask === "" ? "" : ` of ${flask}`);

export async function startTimer(change: Change, request: StartTimer): Promise<Outcome> {
  const { db, person, now } = change;
  const opened = openStage(change, request.stageKey);
  if (isOutcome(opened)) return opened;
  const { id, trialId, what, flask, counts, seconds, strict, inSeconds } = request;
  const sent = timerSentBefore(change.record, request);
  if (sent) return sent;
  const stageId = opened.record.id;
  const running = await db
    .select()
    .from(timer)
    .where(and(eq(timer.stageId, stageId), isNull(timer.endedAt), eq(timer.what, what)));
  const twin = running.find((t) => t.trialId === trialId && t.flask === flask);
  if (twin) {
    return refused(
      `${capitalized(flask === "" ? "This timer" : flask)} is timed already: ${what}. End that timer before you set it again`,
    );
  }
  const at = happenedAt(change, request.heldSeconds);
  const begun = inSeconds === null ? at : null;
  const plannedAt = inSeconds === null ? null : new Date(now.getTime() + 1000 * inSeconds);
  await db.insert(timer).values({
    id,
    stageId,
    trialId,
    what,
    flask,
    counts,
    seconds,
    strict,
    plannedAt,
    startedAt: begun,
    person,
  });
  const inverse: Inverse = {
    do: "timer",
    timerId: id,
    startedAt: null,
    endedAt: now.toISOString(),
    outcome: "dropped",
  };
  await remember(change, `timer${flaskOf(request)}: ${what}`, inverse, {
    to: begun ? "running" : "planned",
  });
  return done;
}

/** A timer of this run by its id. */
async function find({ db, record }: Change, timerId: string): Promise<Row | null> {
  const stageIds = record.stages.map((s) => s.id);
  const [row] = await db
    .select()
    .from(timer)
    .where(and(eq(timer.id, timerId), inArray(timer.stageId, stageIds)));
  return row ?? null;
}

const before = (row: Row): Inverse => ({
  do: "timer",
  timerId: row.id,
  startedAt: row.startedAt?.toISOString() ?? null,
  endedAt: row.endedAt?.toISOString() ?? null,
  outcome: row.outcome,
});

export async function setTimer(db: Connection, inverse: Extract<Inverse, { do: "timer" }>): Promise<void> {
  const date = (at: string | null) => (at === null ? null : new Date(at));
  await db
    .update(timer)
    .set({ startedAt: date(inverse.startedAt), endedAt: date(inverse.endedAt), outcome: inverse.outcome })
    .where(eq(timer.id, inverse.timerId));
}

export async function beginTimer(change: Change, request: Request<"begin-timer">): Promise<Outcome> {
  const row = await find(change, request.timerId);
  if (!row) return missing("This run has no such timer");
  if (row.endedAt) return refused("This timer has ended already");
  if (row.startedAt) return refused("This timer runs already");
  await change.db
    .update(timer)
    .set({ startedAt: happenedAt(change, request.heldSeconds) })
    .where(eq(timer.id, row.id));
  await remember(change, `start${flaskOf(row)}: ${row.what}`, before(row), {
    from: "planned",
    to: "running",
  });
  return done;
}

export async function endTimer(change: Change, request: Request<"end-timer">): Promise<Outcome> {
  const row = await find(change, request.timerId);
  if (!row) return missing("This run has no such timer");
  // Two devices press the same button: it has ended, which is what both want.
  if (row.endedAt) return done;
  const endedAt = happenedAt(change, request.heldSeconds);
  const { outcome } = request;
  await change.db.update(timer).set({ endedAt, outcome }).where(eq(timer.id, row.id));
  const words = timerWords(timerOf({ ...row, endedAt, outcome }));
  await remember(change, `end of the timer${flaskOf(row)}: ${row.what}`, before(row), {
    to: outcome === "dropped" ? "given up" : outcome,
    ...(words ? { why: words } : {}),
  });
  return done;
}

/** The color of an end went away: its reading becomes a mark on the way, and the trial is open again. */
export async function faded(change: Change, request: Request<"faded">): Promise<Outcome> {
  const { db, person, now } = change;
  const opened = openStage(change, request.stageKey);
  if (isOutcome(opened)) return opened;
  const titer = opened.definition.inputs.find((input) => input.is === "titer");
  const holder = opened.record.trials.find((t) => t.id === request.trialId);
  if (!titer || !holder) return missing("This run has no such trial");
  const final = presentObservation(holder.observations, titer.symbol, "burette.final");
  if (!final) return refused("This trial has no end that could have faded");
  const reason = `faded after ${Math.round(request.seconds)} s`;
  const marked = await writeReading(change, opened, request.trialId, {
    id: request.markId,
    symbol: titer.symbol,
    kind: "burette.maybe",
    text: final.text,
    supersedes: null,
    reason,
    source: final.source,
    person,
  });
  if (isOutcome(marked)) return marked;
  await db.insert(observation).values({
    ...final,
    id: newId(),
    stageId: opened.record.id,
    trialId: request.trialId,
    text: "",
    value: null,
    assignmentId: null,
    person,
    at: now,
    supersedes: final.id,
    reason,
  });
  const inverses: Inverse[] = [supersedes(final.id, final), marked.inverse];
  const row = request.timerId === null ? null : await find(change, request.timerId);
  if (row && !row.endedAt) {
    await db.update(timer).set({ endedAt: now, outcome: "faded" }).where(eq(timer.id, row.id));
    inverses.push(before(row));
  }
  await remember(
    change,
    `fading of the end of ${trialWords(trialName(holder))}`,
    { do: "several", of: inverses },
    {
      from: final.text,
      to: "a mark on the way",
      why: reason,
    },
  );
  return done;
}
