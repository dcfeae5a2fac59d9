import type { ComputedStage } from "../method";
import type { Observation, StageRecord, TrialRecord } from "../record";
import { methodOf, type RunRecord } from "../run";
import { success, type Result } from "../result";
import { type ChangeProblem, missing } from "./change";
import { msg } from "../text";

/** Where readings stand: a stage (`trialId` null) or one of its trials. */
export interface HolderPlace {
  readonly stageKey: string;
  readonly trialId: string | null;
}

/** A place with the readings in it. */
export interface Holder extends HolderPlace {
  readonly observations: readonly Observation[];
}

/** A stage of the record with its definition; a problem where the method has none, or reads nothing in it. */
export function openStage(
  record: RunRecord,
  stageKey: string,
): Result<{ readonly definition: ComputedStage; readonly stage: StageRecord }, ChangeProblem> {
  const definition = methodOf(record).stages.find((s) => s.key === stageKey);
  const stage = record.stages.find((s) => s.key === stageKey);
  if (!definition || !("inputs" in definition) || !stage) return missing(msg`This run has no such stage`);
  return success({ definition, stage });
}

/** The record with one of its stages changed. */
export const inStage = (
  record: RunRecord,
  stageKey: string,
  change: (stage: StageRecord) => StageRecord,
): RunRecord => ({
  ...record,
  stages: record.stages.map((stage) => (stage.key === stageKey ? change(stage) : stage)),
});

/** The record with one of its trials changed, in whatever stage it is. */
export const inTrial = (
  record: RunRecord,
  trialId: string,
  change: (trial: TrialRecord) => TrialRecord,
): RunRecord => ({
  ...record,
  stages: record.stages.map((stage) =>
    stage.trials.some((t) => t.id === trialId)
      ? { ...stage, trials: stage.trials.map((t) => (t.id === trialId ? change(t) : t)) }
      : stage,
  ),
});

/** The record with the readings of one place changed. */
export const inHolder = (
  record: RunRecord,
  { stageKey, trialId }: HolderPlace,
  change: (observations: readonly Observation[]) => Observation[],
): RunRecord =>
  trialId === null
    ? inStage(record, stageKey, (stage) => ({ ...stage, observations: change(stage.observations) }))
    : inTrial(record, trialId, (trial) => ({ ...trial, observations: change(trial.observations) }));

/** All places of a record in which readings stand. */
export const holdersOf = (record: RunRecord): Holder[] =>
  record.stages.flatMap(({ key, observations, trials }) => [
    { stageKey: key, trialId: null, observations },
    ...trials.map((t) => ({ stageKey: key, trialId: t.id, observations: t.observations })),
  ]);

/** The readings of a place; null where the record does not have it. */
export function readingsAt(
  { stages }: RunRecord,
  { stageKey, trialId }: HolderPlace,
): readonly Observation[] | null {
  const stage = stages.find(({ key }) => key === stageKey);
  const holder = trialId === null ? stage : stage?.trials.find(({ id }) => id === trialId);
  return holder?.observations ?? null;
}

/** The place in which a reading stands. */
export const holderOf = (record: RunRecord, observationId: string): Holder | undefined =>
  holdersOf(record).find(({ observations }) => observations.some((o) => o.id === observationId));

/** A trial of the record with its stage. */
export function findTrial(
  { stages }: RunRecord,
  trialId: string,
): { readonly stage: StageRecord; readonly trial: TrialRecord } | null {
  for (const stage of stages) {
    const trial = stage.trials.find((t) => t.id === trialId);
    if (trial) return { stage, trial };
  }
  return null;
}
