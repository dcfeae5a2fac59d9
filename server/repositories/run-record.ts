import { asc, eq, inArray } from "drizzle-orm";
import type { Observation, TraceRecord } from "../../core/record";
import type { RunRecord, UsedSolution } from "../../core/run";
import type { Connection } from "../database/types";
import { assignment, houseRules, observation, run, solution, stage, trace, trial } from "../database/schema";
import { methodVersion } from "./methods";
import { solutionCode } from "./shelf";
import { timerOf, timersOfStages } from "./timers";

type ObservationRow = typeof observation.$inferSelect;
type TrialRow = typeof trial.$inferSelect;

function observationOf(row: ObservationRow): Observation {
  const { id, symbol, kind, text, value, unit, source, person, at, supersedes, reason, assignmentId } = row;
  const read = {
    id,
    symbol,
    kind,
    text,
    value,
    unit,
    source,
    person,
    at: at.toISOString(),
    supersedes,
    reason,
  };
  return assignmentId === null ? read : { ...read, assignment: assignmentId };
}

const struckOf = ({ struckAt, struckBy, struckReason }: TrialRow) =>
  struckAt ? { at: struckAt.toISOString(), person: struckBy ?? "", reason: struckReason ?? "" } : null;

function traceOf(row: typeof trace.$inferSelect): TraceRecord {
  const { id, trialId, name, xUnit, x, absorbance, source, person, at, removedAt, removedBy, removedReason } =
    row;
  const removed = removedAt
    ? { at: removedAt.toISOString(), person: removedBy ?? "", reason: removedReason ?? "" }
    : null;
  return { id, trialId, name, xUnit, x, absorbance, source, person, at: at.toISOString(), removed };
}

async function usedSolutions(db: Connection, ids: readonly string[]): Promise<UsedSolution[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select({ a: assignment, s: solution })
    .from(assignment)
    .innerJoin(solution, eq(solution.id, assignment.solutionId))
    .where(inArray(assignment.id, [...ids]))
    .orderBy(asc(assignment.seq));
  return rows.map(({ a, s }) => ({
    assignmentId: a.id,
    solutionId: s.id,
    code: solutionCode(s.number),
    name: s.name,
    formula: s.formula,
    how: a.how,
    value: a.value,
    plusMinus: a.plusMinus,
    shape: a.shape,
    unit: a.unit,
    at: a.at.toISOString(),
  }));
}

/** The whole of one run as the core takes it; null where there is none with this id. */
export async function loadRunRecord(db: Connection, runId: string): Promise<RunRecord | null> {
  const [found] = await db
    .select({ run, rules: houseRules.data })
    .from(run)
    .innerJoin(houseRules, eq(houseRules.id, run.houseRulesId))
    .where(eq(run.id, runId));
  if (!found) return null;
  const stages = await db.select().from(stage).where(eq(stage.runId, runId)).orderBy(asc(stage.position));
  const stageIds = stages.map((s) => s.id);
  const trials = await db
    .select()
    .from(trial)
    .where(inArray(trial.stageId, stageIds))
    .orderBy(asc(trial.position));
  const observations = await db
    .select()
    .from(observation)
    .where(inArray(observation.stageId, stageIds))
    .orderBy(asc(observation.seq));
  const traces = await db
    .select()
    .from(trace)
    .where(inArray(trace.stageId, stageIds))
    .orderBy(asc(trace.at), asc(trace.id));
  const timers = await timersOfStages(db, stageIds);
  const observationsOf = (stageId: string, trialId: string | null) =>
    observations.filter((o) => o.stageId === stageId && o.trialId === trialId).map(observationOf);
  const { id, title, sample, bench, status, startedAt, finishedAt } = found.run;
  const solutions = await usedSolutions(db, [
    ...new Set(observations.flatMap((o) => (o.assignmentId === null ? [] : [o.assignmentId]))),
  ]);
  return {
    format: "steady-bead/run",
    formatVersion: 1,
    id,
    title,
    sample,
    bench,
    status,
    startedAt: startedAt.toISOString(),
    finishedAt: finishedAt?.toISOString() ?? null,
    method: await methodVersion(db, found.run.methodId, found.run.methodVersion),
    houseRules: found.rules,
    ...(solutions.length > 0 ? { solutions } : {}),
    stages: stages.map((s) => ({
      id: s.id,
      key: s.key,
      observations: observationsOf(s.id, null),
      ...(s.choices ? { choices: s.choices } : {}),
      ...(traces.some((t) => t.stageId === s.id)
        ? { traces: traces.filter((t) => t.stageId === s.id).map(traceOf) }
        : {}),
      ...(timers.some((t) => t.stageId === s.id)
        ? { timers: timers.filter((t) => t.stageId === s.id).map(timerOf) }
        : {}),
      trials: trials
        .filter((t) => t.stageId === s.id)
        .map((t) => ({
          id: t.id,
          number: t.number,
          label: t.label,
          kind: t.kind,
          struck: struckOf(t),
          observations: observationsOf(s.id, t.id),
        })),
    })),
  };
}
