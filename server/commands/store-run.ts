import { eq, sql } from "drizzle-orm";
import { newId } from "../journal/under-way";
import type { Observation, StageRecord, TrialRecord } from "../../core/record";
import type { RunRecord } from "../../core/run";
import type { run } from "../database/schema";
import { houseRules, observation, stage, timer, trace, trial } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { searchText } from "./search-text";

const date = (at: string | null) => (at === null ? null : new Date(at));

/** Rows of `after` that `before` has not, and those that are another object there. Rows are never taken out. */
function difference<T extends { readonly id: string }>(before: readonly T[], after: readonly T[]) {
  const known = new Map(before.map((row) => [row.id, row]));
  return {
    added: after.filter(({ id }) => !known.has(id)),
    changed: after.filter((row) => known.has(row.id) && known.get(row.id) !== row),
  };
}

const attributes = ({ kind, label, number, struck }: TrialRecord) => ({
  ...{ kind, label, number },
  struckAt: date(struck?.at ?? null),
  struckBy: struck?.person ?? null,
  struckReason: struck?.reason ?? null,
});

async function storeTrials(db: DatabaseConnection, stageId: string, before: StageRecord, after: StageRecord) {
  const { added, changed } = difference(before.trials, after.trials);
  if (added.length > 0)
    await db.insert(trial).values(
      added.map((t, i) => ({
        ...attributes(t),
        ...{ id: t.id, stageId },
        position: sql`(select coalesce(max(${trial.position}), 0) from ${trial} where ${trial.stageId} = ${stageId}) + ${i + 1}`,
      })),
    );
  const other = (t: TrialRecord) => JSON.stringify(attributes(t));
  for (const t of changed) {
    const was = before.trials.find(({ id }) => id === t.id);
    if (was && other(was) !== other(t)) await db.update(trial).set(attributes(t)).where(eq(trial.id, t.id));
  }
}

const readingRow = (
  stageId: string,
  trialId: string | null,
  { at, assignment, ...read }: Observation,
): typeof observation.$inferInsert => ({
  ...read,
  ...{ stageId, trialId, at: new Date(at), assignmentId: assignment ?? null },
});

type Trace = NonNullable<StageRecord["traces"]>[number];
type Timer = NonNullable<StageRecord["timers"]>[number];

const removal = ({ removed }: Trace) => ({
  removedAt: date(removed?.at ?? null),
  removedBy: removed?.person ?? null,
  removedReason: removed?.reason ?? null,
});

function traceRow(stageId: string, given: Trace): typeof trace.$inferInsert {
  const { removed: _, at, ...row } = given;
  return { ...row, ...removal(given), stageId, at: new Date(at) };
}

const timerRow = (
  stageId: string,
  { plannedAt, startedAt, endedAt, ...row }: Timer,
): typeof timer.$inferInsert => ({
  ...{ ...row, stageId },
  ...{ plannedAt: date(plannedAt), startedAt: date(startedAt), endedAt: date(endedAt) },
});

/** All rows of the stages of a run that nobody has written yet. */
export function rowsOfStages(stages: readonly StageRecord[]) {
  return {
    trials: stages.flatMap(({ id: stageId, trials }) =>
      trials.map((t, i) => ({ ...attributes(t), id: t.id, stageId, position: i + 1 })),
    ),
    readings: stages.flatMap(({ id, observations, trials }) => [
      ...observations.map((read) => readingRow(id, null, read)),
      ...trials.flatMap((t) => t.observations.map((read) => readingRow(id, t.id, read))),
    ]),
    traces: stages.flatMap(({ id, traces = [] }) => traces.map((t) => traceRow(id, t))),
    timers: stages.flatMap(({ id, timers = [] }) => timers.map((t) => timerRow(id, t))),
  };
}

/** Readings that were appended, in the order in which they were. */
function appended({ id: stageId, ...before }: StageRecord, after: StageRecord) {
  const added = (trialId: string | null, was: readonly Observation[], is: readonly Observation[]) =>
    is.slice(was.length).map((read) => readingRow(stageId, trialId, read));
  return [
    ...added(null, before.observations, after.observations),
    ...after.trials.flatMap((t) =>
      added(t.id, before.trials.find(({ id }) => id === t.id)?.observations ?? [], t.observations),
    ),
  ];
}

async function storeTraces(db: DatabaseConnection, stageId: string, before: StageRecord, after: StageRecord) {
  const { added, changed } = difference(before.traces ?? [], after.traces ?? []);
  for (const t of added) await db.insert(trace).values(traceRow(stageId, t));
  for (const t of changed) await db.update(trace).set(removal(t)).where(eq(trace.id, t.id));
}

async function storeTimers(db: DatabaseConnection, stageId: string, before: StageRecord, after: StageRecord) {
  const { added, changed } = difference(before.timers ?? [], after.timers ?? []);
  for (const t of added) await db.insert(timer).values(timerRow(stageId, t));
  for (const { id, startedAt, endedAt, outcome } of changed)
    await db
      .update(timer)
      .set({ startedAt: date(startedAt), endedAt: date(endedAt), outcome })
      .where(eq(timer.id, id));
}

async function storeStage(db: DatabaseConnection, before: StageRecord, after: StageRecord): Promise<void> {
  if (before === after) return;
  await storeTrials(db, after.id, before, after);
  const readings = appended(before, after);
  if (readings.length > 0) await db.insert(observation).values(readings);
  await storeTraces(db, after.id, before, after);
  await storeTimers(db, after.id, before, after);
  if (after.choices !== before.choices)
    await db
      .update(stage)
      .set({ choices: after.choices ?? {} })
      .where(eq(stage.id, after.id));
}

/**
 * Writes what a change made of a record: rows that are new, and attributes that are others. Returns what belongs into the row of
 * the run itself, which is written together with its summary.
 */
export async function storeDifference(
  db: DatabaseConnection,
  before: RunRecord,
  after: RunRecord,
  now: Date,
): Promise<Partial<typeof run.$inferInsert>> {
  for (const stageAfter of after.stages) {
    const stageBefore = before.stages.find((s) => s.id === stageAfter.id);
    if (stageBefore) await storeStage(db, stageBefore, stageAfter);
  }
  let own: Partial<typeof run.$inferInsert> = {};
  if (after.houseRules !== before.houseRules) {
    const houseRulesId = newId();
    const { houseRules: data, id: runId } = after;
    await db.insert(houseRules).values({ id: houseRulesId, createdAt: now, data, runId });
    own = { houseRulesId };
  }
  if (after.countersigned !== before.countersigned)
    own = { ...own, countersigned: after.countersigned ?? null };
  if (after.series !== before.series) own = { ...own, series: after.series ?? null };
  if (after.choices !== before.choices) own = { ...own, choices: after.choices ?? [] };
  const { title, sample, bench, status, finishedAt } = after;
  if (title !== before.title || sample !== before.sample || bench !== before.bench)
    own = { ...own, title, sample, bench, search: searchText({ title, sample, bench }) };
  if (status !== before.status || finishedAt !== before.finishedAt)
    own = { ...own, status, finishedAt: date(finishedAt) };
  return own;
}
