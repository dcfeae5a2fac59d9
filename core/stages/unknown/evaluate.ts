import { mean } from "../../statistics";
import { sizesMl, type Check } from "../../measure";
import {
  type ReadQuantity,
  type CalibrationEvaluation,
  type RangeView,
  type SampleEvaluation,
  type UnknownEvaluation,
  unjudged,
} from "../shared/evaluation";
import { toSignificant, type Quantity, unitsLike, withUnit } from "../../quantity";
import { type TrialRecord, readingsOf, counting, type StageRecord, trialWords } from "../../record";
import type { UnknownStage } from "../../method";
import { type KnownQuantities, evaluateSample, stageInputs, stageFieldStates } from "../shared/trial";
import type { CompiledStage } from "../compiled";
import type { StageContext } from "../shared/stage";
import { strayLightFrom } from "../../calibration";
import { readingsChecks, judgeFlasks } from "./flasks";
import { combine, stillWanting, resultViews } from "../shared/replicates";
import { judgeAcceptance } from "../shared/accept";
import { msg, type Phrase } from "../../text";

/** The mildest dilution by standard glass that brings an amount down to four fifths of the top standard. */
function dilutionWords(x: number, top: number): Phrase {
  const needed = x / (0.8 * top);
  // A pipette of 1 or 2 mL is read poorly, one of 100 mL wastes sample.
  const handy = sizesMl("pipette").filter((p) => p >= 5 && p <= 50);
  const [fit] = handy
    .flatMap((p) => sizesMl("flask").map((f) => ({ p, f, factor: f / p })))
    .filter(({ factor }) => factor >= needed)
    .sort((a, b) => a.factor - b.factor || b.p - a.p);
  return fit
    ? msg`dilute it ${Number(fit.factor.toPrecision(3))}-fold (${fit.p} mL to ${fit.f} mL) and it will lie within`
    : msg`dilute it in two steps`;
}

/** Where an unknown lies beside the standards, in words. */
export function rangeOf(
  { off }: ReadQuantity,
  { line, definition }: CalibrationEvaluation,
): RangeView | null {
  if (!line) return null;
  const { x, y } = off;
  const [low, high] = line.fit.range;
  const show = (v: number) => withUnit(toSignificant(v, 3), definition.axis.unit);
  const limit = line.limits.blanks ?? line.limits.line;
  const named = line.limits.blanks ? msg`by the blanks` : msg`by the line`;
  if (x < 0) {
    return {
      place: "undetected",
      text: msg`It reads ${y.toFixed(3)}, below the line’s value for zero (${line.fit.valueAt(0).toFixed(3)}): not detected. Was the blank made with the same water and reagents?`,
    };
  }
  if (limit && x < limit.detection) {
    return {
      place: "undetected",
      text: msg`${show(x)} is below the limit of detection (${named}, ${show(limit.detection)}): report it as less than that`,
    };
  }
  if (x > high) {
    const over = (100 * (x - high)) / high;
    return {
      place: "above",
      text: msg`It lies ${toSignificant(over, 2)} % above the strongest standard, where the line has not been checked: ${dilutionWords(x, high)}`,
    };
  }
  if (x < low) {
    return {
      place: "below",
      text: msg`It lies below the weakest standard, ${show(low)}: take more of it, or add a weaker standard`,
    };
  }
  if (limit && x < limit.quantitation) {
    return {
      place: "within",
      text: msg`${show(x)} is detected, but lies below the limit of quantitation (${named}, ${show(limit.quantitation)})`,
    };
  }
  return null;
}

function evaluateUnknownTrial(
  record: TrialRecord,
  stage: CompiledStage<UnknownStage>,
  shared: KnownQuantities,
  context: StageContext,
): SampleEvaluation {
  const { definition } = stage;
  const extra = new Map<string, Quantity>();
  const cautions: Check[] = [];
  let [found, problem]: [ReadQuantity | null, Phrase | null] = [null, null];
  let range: RangeView | null = null;
  let readings: SampleEvaluation["readings"] = [];
  for (const input of definition.inputs) {
    if (input.is !== "read-off") continue;
    readings = readingsOf(record.observations, input.reading);
    const ys = counting(readings);
    const line = context.lines.get(input.stage);
    if (ys.length === 0 || context.suspended !== undefined) continue;
    const shown = mean(ys);
    if (shown > strayLightFrom) {
      cautions.push({
        severity: "caution",
        message: msg`${shown.toFixed(2)} is so high that stray light matters: dilute it`,
      });
    }
    if (!line?.readOff) {
      problem = line?.problem ?? msg`${line?.definition.title ?? msg`The line`} has no line yet`;
      continue;
    }
    const read = line.readOff(ys, record.id);
    if (!read.ok) {
      problem = read.problem.message;
      continue;
    }
    found = read.value;
    range = rangeOf(read.value, line);
    if (range) cautions.push({ severity: "caution", message: range.text });
    extra.set(input.symbol, read.value.quantity);
  }
  const sample = evaluateSample(record, stage, shared, context.method, context.rules, extra);
  return {
    ...sample,
    readings,
    off: found?.off ?? null,
    range,
    problem: problem ?? sample.problem,
    cautions: [
      ...sample.cautions,
      ...cautions,
      ...readingsChecks(trialWords(record, "flask"), readings, found?.off ?? null, context.rules),
    ],
  };
}

/** The stage with its result in the unit that somebody asked for, where it can be shown in that. */
function inAskedUnit(definition: UnknownStage, { choices = {} }: StageRecord): UnknownStage {
  const { result } = definition;
  const { unit } = choices;
  if (unit === undefined || !unitsLike(result.unit).includes(unit)) return definition;
  return { ...definition, result: { ...result, unit } };
}

/** Unknown flasks read off the line of an earlier stage. */
export function evaluateUnknown(
  asWritten: CompiledStage<UnknownStage>,
  record: StageRecord,
  context: StageContext,
): UnknownEvaluation {
  const definition = inAskedUnit(asWritten.definition, record);
  const stage = { ...asWritten, definition };
  const { method, rules, earlier } = context;
  const shared = stageInputs(stage, record, earlier, { ...context, method: method.method });
  const trials = record.trials.map((trial) => evaluateUnknownTrial(trial, stage, shared, context));
  const agreement = judgeFlasks(trials, definition, rules);
  const together = combine(
    stage,
    trials.filter((t) => agreement.members.includes(t.id)),
    context,
  );
  const { combined, members } = together;
  const disagree = agreement.state === "apart" || agreement.state === "rivals";
  const lineOf = definition.inputs.find((i) => i.is === "read-off")?.stage ?? "";
  const ofTrial = trials.find((t) => t.problem && !t.record.struck)?.problem;
  const problem =
    combined || trials.length === 0
      ? null
      : (ofTrial ?? (disagree ? agreement.text : stillWanting(stage, record, context)));
  const open = trials.find((t) => t.missing && !t.record.struck);
  const cautions = trials.flatMap((t) => (t.record.struck ? [] : t.cautions));
  return {
    kind: "unknown",
    ...unjudged,
    key: definition.key,
    definition,
    done: combined !== null,
    stageFields: stageFieldStates(definition, record, rules),
    trials,
    agreement,
    ...resultViews(stage, together, context),
    problem,
    acceptance: judgeAcceptance(
      definition,
      combined?.quantity ?? null,
      shared.quantities,
      { agreed: true, titrations: members.length },
      rules,
    ),
    cautions,
    lineOf,
    next: problem
      ? disagree && !ofTrial
        ? msg`${agreement.text} Make another flask from the sample, or strike out the wrong one`
        : problem
      : open
        ? msg`Read ${trialWords(open.record, "flask")}: rinse the cuvette with it first, and wipe it`
        : members.length === 0
          ? msg`Read the unknown: rinse the cuvette with it first, and wipe it`
          : members.length === 1
            ? msg`One flask is read. A second one, prepared from the sample again, shows how well the whole procedure repeats`
            : msg`${agreement.text} Go on, or read another`,
  };
}
