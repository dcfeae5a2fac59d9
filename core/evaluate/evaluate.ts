import { methodOf } from "../run";
import {
  resultsForLater,
  type StageContext,
  type EarlierResult,
  type Bead,
  type CalibrationEvaluation,
  type RunEvaluation,
  type StageFailure,
  type ComputedEvaluation,
  type Footing,
  footingOfStage,
  judgeStage,
  noFooting,
  evaluateStage,
  factOf,
  nextAt,
  isBegun,
  compiledMethod,
  type CompiledStage,
  compiledStage,
} from "../stages";
import { concluding } from "../method";
import { isTakenBack, type StageRecord } from "../record";
import type { RunRecord } from "../run";

/** The flask that is being titrated, where several are begun; a trial that is not there yet is the next one. */
export interface Hand {
  readonly stageKey: string;
  readonly trialId: string;
}

/** What is told of a stage whose evaluation failed: a fault of the program, so that nobody looks for it in the readings. */
const suspendedWords =
  "This stage cannot be calculated: the program failed on its readings. They are saved, and you can view and correct them. The other stages still work";

/** A stage without the trials that were taken back: they stand in the trail alone. */
const withoutTakenBack = (stage: StageRecord): StageRecord =>
  stage.trials.some((t) => isTakenBack(t, stage))
    ? { ...stage, trials: stage.trials.filter((t) => !isTakenBack(t, stage)) }
    : stage;

/** One stage with nothing computed, its readings shown; without its trials where even that fails. */
function suspendedStage(
  compiled: CompiledStage,
  record: StageRecord,
  context: StageContext,
): ComputedEvaluation {
  const suspended = { ...context, suspended: suspendedWords };
  const told = (readings: StageRecord): ComputedEvaluation => {
    const stage = evaluateStage(compiled, readings, suspended);
    return { ...stage, done: false, problem: suspendedWords };
  };
  try {
    return told(withoutTakenBack(record));
  } catch {
    // Its readings cannot even be listed.
    return told({ id: record.id, key: record.key, observations: [], trials: [] });
  }
}

/**
 * Everything that the screens and the report show of one run. Pure: the same record gives the same evaluation, in the
 * browser at each key press and on the server for what was saved. The record's method must hold together
 * (`compileMethod`); readings must have passed `checkField`. A stage whose evaluation fails is shown with its readings and
 * without a result; the others go on, and `failures` says what happened. `hand` tells which of several begun flasks is being titrated.
 */
export function evaluateRun(record: RunRecord, hand?: Hand): RunEvaluation {
  const followed = methodOf(record);
  const method = compiledMethod(followed);
  const earlier = new Map<string, ReadonlyMap<string, EarlierResult>>();
  const lines = new Map<string, CalibrationEvaluation>();
  const footings = new Map<string, Footing>();
  const stages: ComputedEvaluation[] = [];
  const failures: StageFailure[] = [];
  followed.stages.forEach(({ key }, i) => {
    const there = record.stages.find((s) => s.key === key);
    const stageRecord = there ?? { id: key, key, observations: [], trials: [] };
    const nextStageTitle = followed.stages[i + 1]?.title ?? concluding.title;
    const inHand = hand?.stageKey === key ? { hand: hand.trialId } : {};
    const context = {
      method,
      rules: record.houseRules,
      open: record.status === "open",
      earlier,
      nextStageTitle,
      lines,
      ...inHand,
    };
    const compiled = compiledStage(method, key);
    if (!compiled) return;
    const { houseRules: rules } = record;
    const finish = (found: ComputedEvaluation) => {
      const evaluated = judgeStage(found, {
        compiled,
        method,
        rules,
        record: stageRecord,
        earlier,
        footings,
      });
      return { evaluated, footing: footingOfStage(evaluated), later: resultsForLater(evaluated) };
    };
    let done: ReturnType<typeof finish>;
    try {
      const found = evaluateStage(compiled, withoutTakenBack(stageRecord), context);
      done = finish(found);
    } catch (error) {
      failures.push({ stageKey: key, error });
      const found = suspendedStage(compiled, stageRecord, context);
      done = { evaluated: found, footing: noFooting, later: new Map() };
    }
    const { evaluated, footing, later } = done;
    footings.set(key, footing);
    if (evaluated.kind === "calibration") lines.set(key, evaluated);
    earlier.set(key, later);
    stages.push(evaluated);
  });

  const at = stages.find((s) => !s.done);
  const currentStage = at?.key ?? concluding.key;
  const closed = record.status !== "open";
  const chain: Bead[] = stages.map((stage) => ({
    key: stage.key,
    title: stage.definition.title,
    state: stage.done ? "done" : stage === at ? "current" : "ahead",
    fact: stage.done || stage === at ? factOf(stage) : "",
  }));
  chain.push({ ...concluding, state: closed ? "done" : at ? "ahead" : "current", fact: "" });
  return {
    stages,
    chain,
    currentStage,
    next: at ? nextAt(at) : closed ? "" : "Read the result over and finish the run",
    state: stateWords(record, stages, at),
    result: stages.at(-1)?.shown ?? null,
    failures,
  };
}

function stateWords(
  record: RunRecord,
  stages: readonly ComputedEvaluation[],
  at: ComputedEvaluation | undefined,
): string {
  if (record.status !== "open") return record.status;
  const started = stages.some(isBegun);
  if (!started) return "just begun";
  if (!at) return "ready to conclude";
  return `stage ${stages.indexOf(at) + 1} of ${stages.length + 1}`;
}
