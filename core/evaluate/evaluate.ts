import { knownOf, methodOf } from "../run";
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
} from "../stages";
import { concluding } from "../method";
import { withoutMemory, type FoundStage, type Remembering } from "./remembered";
import { isTakenBack, type StageRecord } from "../record";
import type { RunRecord } from "../run";
import { msg, type Phrase } from "../text";

/** The flask that is being titrated, where several are begun; a trial that is not there yet is the next one. */
export interface FlaskInHand {
  readonly stageKey: string;
  readonly trialId: string;
}

/** What is told of a stage whose evaluation failed: a fault of the program, so that nobody looks for it in the readings. */
const suspendedWords = msg`This stage cannot be calculated: the program failed on its readings. They are saved, and you can view and correct them. The other stages still work`;

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
  const evaluated = (readings: StageRecord): ComputedEvaluation => {
    const stage = evaluateStage(compiled, readings, suspended);
    return { ...stage, done: false, problem: suspendedWords };
  };
  try {
    return evaluated(withoutTakenBack(record));
  } catch {
    // Its readings cannot even be listed.
    return evaluated({ id: record.id, key: record.key, observations: [], trials: [] });
  }
}

/** What the stages before leave to those after them. */
interface Before {
  readonly earlier: Map<string, ReadonlyMap<string, EarlierResult>>;
  readonly lines: Map<string, CalibrationEvaluation>;
  readonly footings: Map<string, Footing>;
}

/** One stage, and what the later ones may use of it; with nothing computed, and the error, where its evaluation failed. */
function evaluateOne(
  compiled: CompiledStage,
  record: StageRecord,
  context: StageContext,
  { earlier, footings }: Before,
): FoundStage {
  const { method, rules } = context;
  try {
    const found = evaluateStage(compiled, withoutTakenBack(record), context);
    const evaluated = judgeStage(found, { compiled, method, rules, record, earlier, footings });
    return { evaluated, footing: footingOfStage(evaluated), later: resultsForLater(evaluated) };
  } catch (error) {
    return {
      evaluated: suspendedStage(compiled, record, context),
      footing: noFooting,
      later: new Map(),
      error,
    };
  }
}

/** Where the result of a stage is from that is known and not done in a run; null where it is done. */
function sourceOf(record: RunRecord, { key, definition, stageFields }: ComputedEvaluation): Phrase | null {
  const known = knownOf(record, key);
  if (!known) return null;
  const stated = stageFields.find(({ field }) => field.symbol === definition.result.symbol)?.present;
  const bottle = record.solutions?.find((s) => s.assignmentId === stated?.assignment);
  return bottle ? msg`from ${bottle.code}` : known.from === "" ? msg`stated` : known.from;
}

/** The chain of beads over a run: its stages, and concluding behind the last one. */
function chainOf(
  stages: readonly ComputedEvaluation[],
  at: ComputedEvaluation | undefined,
  record: RunRecord,
): Bead[] {
  const closed = record.status !== "open";
  const beads = stages.map((stage): Bead => {
    const source = sourceOf(record, stage);
    return {
      key: stage.key,
      title: stage.definition.title,
      state: stage.done ? "done" : stage === at ? "current" : "ahead",
      fact: stage.done ? factOf(stage) : stage === at ? (source ? msg`not stated yet` : factOf(stage)) : "",
      ...(source && stage.done ? { source } : {}),
    };
  });
  return [...beads, { ...concluding, state: closed ? "done" : at ? "ahead" : "current", fact: "" }];
}

/**
 * Everything that the screens and the report show of one run. Pure: the same record gives the same evaluation, in the
 * browser at each key press and on the server for what was saved. The record's method must pass its check
 * (`compileMethod`); readings must have passed `checkField`. A stage whose evaluation fails is shown with its readings and
 * without a result; the others go on, and `failures` says what happened. `hand` tells which of several begun flasks is being titrated.
 * `remembered` is for records that are never changed in place: a stage is not evaluated again where nothing it follows from is another
 * object than before.
 */
export function evaluateRun(
  record: RunRecord,
  hand?: FlaskInHand,
  remembered: Remembering = withoutMemory,
): RunEvaluation {
  const method = compiledMethod(methodOf(record));
  const closed = record.status !== "open";
  const before: Before = { earlier: new Map(), lines: new Map(), footings: new Map() };
  const stages: ComputedEvaluation[] = [];
  const failures: StageFailure[] = [];
  const all = [...method.stages.values()];
  all.forEach((compiled, i) => {
    const { key } = compiled.definition;
    const readings = record.stages.find((s) => s.key === key);
    const context: StageContext = {
      ...{ method, rules: record.houseRules, open: !closed },
      ...{ earlier: before.earlier, lines: before.lines },
      nextStageTitle: all[i + 1]?.definition.title ?? concluding.title,
      ...(hand?.stageKey === key ? { hand: hand.trialId } : {}),
    };
    const stageRecord = readings ?? { id: key, key, observations: [], trials: [] };
    const basis = {
      ...{ compiled, rules: record.houseRules, open: !closed, hand: context.hand },
      ...{ next: context.nextStageTitle, before: [...stages] },
    };
    const find = () => evaluateOne(compiled, stageRecord, context, before);
    const found = remembered(stageRecord, basis, find);
    const { evaluated, footing, later } = found;
    before.footings.set(key, footing);
    before.earlier.set(key, later);
    if (evaluated.kind === "calibration") before.lines.set(key, evaluated);
    if ("error" in found) failures.push({ stageKey: key, error: found.error });
    stages.push(evaluated);
  });
  return wholeOf(record, stages, failures);
}

/**
 * What a run shows once it is closed, by what it showed while it was open and all its stages were done: these are as they were, so that
 * nothing is evaluated again.
 */
export const onceClosed = (closed: RunRecord, { stages, failures }: RunEvaluation): RunEvaluation =>
  wholeOf(closed, stages, failures);

/** A run by its stages. */
function wholeOf(
  record: RunRecord,
  stages: readonly ComputedEvaluation[],
  failures: readonly StageFailure[],
): RunEvaluation {
  const closed = record.status !== "open";
  const at = stages.find((s) => !s.done);
  return {
    stages,
    chain: chainOf(stages, at, record),
    currentStage: at?.key ?? concluding.key,
    next: at ? nextAt(at) : closed ? "" : msg`Review the result, then finish the run`,
    state: stateWords(record, stages, at),
    result: stages.at(-1)?.shown ?? null,
    failures,
  };
}

function stateWords(
  record: RunRecord,
  stages: readonly ComputedEvaluation[],
  at: ComputedEvaluation | undefined,
): Phrase {
  if (record.status !== "open") return record.status;
  const started = stages.some(isBegun);
  if (!started) return msg`just begun`;
  if (!at) return msg`ready to conclude`;
  return msg`stage ${stages.indexOf(at) + 1} of ${stages.length + 1}`;
}
