import { toDecimals } from "../quantity";
import {
  percentBeside,
  evaluateRate,
  evaluateUnknown,
  evaluateCalibration,
  evaluateMade,
  evaluateTitration,
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
} from "../stages";
import { compiledMethod, type CompiledMethod, compiledStage, concluding, perOf } from "../method";
import { isTakenBack, type StageRecord } from "../record";
import type { RunRecord } from "../run";
import { capitalized, trialWords, uncapitalized } from "../text";

/** The flask that is being titrated, where several are begun; a trial that is not there yet is the next one. */
export interface Hand {
  readonly stageKey: string;
  readonly trialId: string;
}

function fact(stage: ComputedEvaluation): string {
  if (stage.done) return stage.shown?.text ?? "";
  if (stage.implausible.some(({ outside }) => outside === "impossible")) return "cannot be: look";
  if (stage.kind === "preparation") {
    const read = stage.stageFields.filter(({ present }) => present).length;
    if (stage.definition.spectra) return "not chosen yet";
    return read === 0 ? "not made yet" : "being made";
  }
  if (stage.kind === "calibration") {
    const read = stage.levels.filter((l) => l.mean !== null).length;
    return read === 0 ? "no standard yet" : `${read} of ${Math.max(read, read + stage.ahead.length)} read`;
  }
  if (stage.kind === "unknown" && (stage.agreement.state === "apart" || stage.agreement.state === "rivals"))
    return "flasks disagree";
  if (stage.kind !== "titration") return stage.trials.length === 0 ? "not read yet" : "being read";
  if (stage.acceptance?.against === "value" && stage.acceptance.decision) {
    const { accept } = stage.definition;
    const allowed = accept?.against === "value" ? accept.tolerancePercent : 0;
    return `off by ${percentBeside(Math.abs(stage.acceptance.errorPercent), allowed)} %`;
  }
  const complete = stage.trials.filter((t) => t.eligible).length;
  if (complete === 0) return stage.trials.length === 0 ? "no trial yet" : "no trial counts yet";
  const { members, needed, state } = stage.agreement;
  if (state === "apart" || state === "rivals") return `${complete} disagree`;
  return members.length > 1 ? `${members.length} of ${needed} agree` : `${complete} of ${needed}`;
}

/** What to do next at a stage, in one sentence. */
function nextAction(stage: ComputedEvaluation): string {
  if (stage.kind === "preparation") {
    if (stage.problem) return stage.problem;
    return stage.missing ? capitalized(uncapitalized(stage.missing.label)) : "";
  }
  if (stage.kind !== "titration") return stage.next;
  const { current, guidance, trials, verdict, definition } = stage;
  if (current?.missing) {
    const { label, kind } = current.missing;
    const near =
      kind === "burette.final" && guidance?.endNear ? ` (near ${toDecimals(guidance.endNear, 1)})` : "";
    return `${capitalized(uncapitalized(label))} of ${trialWords(current.name)}${near}`;
  }
  if (trials.length === 0) {
    const first = definition.inputs.find((input) => perOf(input) === "trial");
    if (first?.is === "mass") return "Weigh the first flask";
    return first && first.is !== "titer" ? "Take the first aliquot" : "Begin the first trial";
  }
  return verdict.next;
}

/** What is told of a stage whose evaluation failed: a fault of the program, so that nobody looks for it in the readings. */
const suspendedWords =
  "This stage cannot be calculated: the program failed on its readings. They are saved, and you can view and correct them. The other stages still work";

/** One stage with nothing computed, its readings shown; without its trials where even that fails. */
function suspendedStage(
  method: CompiledMethod,
  key: string,
  record: StageRecord,
  context: StageContext,
): ComputedEvaluation | null {
  const suspended = { ...context, suspended: suspendedWords };
  const told = (stage: ComputedEvaluation | null): ComputedEvaluation | null =>
    stage && { ...stage, done: false, problem: suspendedWords };
  try {
    return told(evaluateStage(method, key, record, suspended));
  } catch {
    // Its readings cannot even be listed.
    return told(evaluateStage(method, key, { id: record.id, key, observations: [], trials: [] }, suspended));
  }
}

/** A stage without the trials that were taken back: they stand in the trail alone. */
const withoutTakenBack = (stage: StageRecord): StageRecord =>
  stage.trials.some((t) => isTakenBack(t, stage))
    ? { ...stage, trials: stage.trials.filter((t) => !isTakenBack(t, stage)) }
    : stage;

/** One stage, by its kind. */
function evaluateStage(
  method: CompiledMethod,
  key: string,
  saved: StageRecord,
  context: StageContext,
): ComputedEvaluation | null {
  const record = withoutTakenBack(saved);
  const titration = method.titrations.get(key);
  if (titration) return evaluateTitration(titration, record, context);
  const preparation = method.preparations.get(key);
  if (preparation) return evaluateMade(preparation, record, context);
  const assay = method.assays.get(key);
  if (!assay) return null;
  const { definition } = assay;
  switch (definition.kind) {
    case "calibration":
      return evaluateCalibration(assay, definition, record, context);
    case "unknown":
      return evaluateUnknown(assay, definition, record, context);
    case "rate":
      return evaluateRate(assay, definition, record, context);
  }
}

/**
 * Everything that the screens and the report show of one run. Pure: the same record gives the same evaluation, in the
 * browser at each key press and on the server for what was saved. The record's method must hold together
 * (`compileMethod`); readings must have passed `checkField`. A stage whose evaluation fails is shown with its readings and
 * without a result; the others go on, and `failures` says what happened. `hand` tells which of several begun flasks is being titrated.
 */
export function evaluateRun(record: RunRecord, hand?: Hand): RunEvaluation {
  const method = compiledMethod(record.method);
  const earlier = new Map<string, ReadonlyMap<string, EarlierResult>>();
  const lines = new Map<string, CalibrationEvaluation>();
  const footings = new Map<string, Footing>();
  const stages: ComputedEvaluation[] = [];
  const failures: StageFailure[] = [];
  record.method.stages.forEach((definition, i) => {
    const { key } = definition;
    const there = record.stages.find((s) => s.key === key);
    const stageRecord = there ?? { id: key, key, observations: [], trials: [] };
    const nextStageTitle = record.method.stages[i + 1]?.title ?? concluding.title;
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
    let done: ReturnType<typeof finish> | null = null;
    try {
      const found = evaluateStage(method, key, stageRecord, context);
      done = found && finish(found);
    } catch (error) {
      failures.push({ stageKey: key, error });
      const found = suspendedStage(method, key, stageRecord, context);
      done = found && { evaluated: found, footing: noFooting, later: new Map() };
    }
    if (!done) return;
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
    fact: stage.done || stage === at ? fact(stage) : "",
  }));
  chain.push({ ...concluding, state: closed ? "done" : at ? "ahead" : "current", fact: "" });
  return {
    stages,
    chain,
    currentStage,
    next: at ? nextAction(at) : closed ? "" : "Read the result over and finish the run",
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
  const started = stages.some(
    (s) =>
      ((s.kind === "titration" || s.kind === "unknown" || s.kind === "rate") && s.trials.length > 0) ||
      (s.kind === "calibration" && (s.levels.length > 0 || s.blanks.length > 0)) ||
      (s.kind === "preparation" && s.stageFields.some(({ present }) => present)),
  );
  if (!started) return "just begun";
  if (!at) return "ready to conclude";
  return `stage ${stages.indexOf(at) + 1} of ${stages.length + 1}`;
}
