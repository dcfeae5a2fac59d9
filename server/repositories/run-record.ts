import { asc, eq, inArray } from "drizzle-orm";
import type { Observation, RunRecord } from "../../core/run";
import type { Connection } from "../database/types";
import { houseRules, observation, run, stage, trial } from "../database/schema";
import { methodVersion } from "./methods";

type ObservationRow = typeof observation.$inferSelect;
type TrialRow = typeof trial.$inferSelect;

function observationOf(row: ObservationRow): Observation {
  const { id, symbol, kind, text, value, unit, source, person, at, supersedes, reason } = row;
  return { id, symbol, kind, text, value, unit, source, person, at: at.toISOString(), supersedes, reason };
}

const struckOf = ({ struckAt, struckBy, struckReason }: TrialRow) =>
  struckAt ? { at: struckAt.toISOString(), person: struckBy ?? "", reason: struckReason ?? "" } : null;

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
    .orderBy(asc(observation.id));
  const observationsOf = (stageId: string, trialId: string | null) =>
    observations.filter((o) => o.stageId === stageId && o.trialId === trialId).map(observationOf);
  const { id, title, sample, bench, status, startedAt, finishedAt } = found.run;
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
    stages: stages.map((s) => ({
      id: s.id,
      key: s.key,
      observations: observationsOf(s.id, null),
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
