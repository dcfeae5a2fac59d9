import { strayLightFrom } from "../../calibration";
import { type CombinedResult, plusMinusOf, sharesOfVariance } from "../../judgement";
import {
  compareOrders,
  type Order,
  orderInExcess,
  orderWord,
  rateUnits,
  thinned,
  windowOf,
} from "../../kinetics";
import { type Check, sizesMl } from "../../measure";
import {
  divide,
  inUnit,
  leaf,
  measured,
  multiply,
  printedUnit,
  type Quantity,
  toSignificant,
  unitsLike,
} from "../../quantity";
import { judgeAcceptance } from "../shared/accept";
import type { CompiledAssay, RateStage, UnknownStage } from "../../method";
import { combineResult, furtherResults, shareGroups, type StageContext } from "../shared/stage";
import { evaluateSample, type Known, stageFieldStates, stageInputs } from "../shared/trial";
import {
  type CalibrationEvaluation,
  type CourseEvaluation,
  type RangeView,
  type RateEvaluation,
  type ReadQuantity,
  type SampleEvaluation,
  type TrialEvaluation,
  type UnknownEvaluation,
  unjudged,
} from "../shared/evaluation";
import { judgeFlasks, readingsChecks } from "./flasks";
import {
  presentObservation,
  type StageRecord,
  traceOf,
  type TraceRecord,
  type TrialRecord,
  counting,
  readingsOf,
} from "../../record";
import { showQuantity } from "../shared/show";
import { capitalized, flaskWords, trialWords } from "../../text";

/** The mildest dilution by standard glass that brings an amount down to four fifths of the top standard. */
function dilutionWords(x: number, top: number): string {
  const needed = x / (0.8 * top);
  // A pipette of 1 or 2 mL is read poorly, one of 100 mL wastes sample.
  const handy = sizesMl("pipette").filter((p) => p >= 5 && p <= 50);
  const [fit] = handy
    .flatMap((p) => sizesMl("flask").map((f) => ({ p, f, factor: f / p })))
    .filter(({ factor }) => factor >= needed)
    .sort((a, b) => a.factor - b.factor || b.p - a.p);
  return fit
    ? `dilute it ${Number(fit.factor.toPrecision(3))}-fold (${fit.p} mL to ${fit.f} mL) and it will lie within`
    : "dilute it in two steps";
}

/** Where an unknown lies beside the standards, in words. */
export function rangeOf(
  { off }: ReadQuantity,
  { line, definition }: CalibrationEvaluation,
): RangeView | null {
  if (!line) return null;
  const { x, y } = off;
  const [low, high] = line.fit.range;
  const printed = printedUnit(definition.axis.unit);
  const unit = printed === "" ? "" : ` ${printed}`;
  const show = (v: number) => `${toSignificant(v, 3)}${unit}`;
  const limit = line.limits.blanks ?? line.limits.line;
  const named = line.limits.blanks ? "by the blanks" : "by the line";
  if (x < 0) {
    return {
      place: "undetected",
      text: `It reads ${y.toFixed(3)}, below what the line gives for nothing (${line.fit.valueAt(0).toFixed(3)}): none was found. Was the blank the same water and the same reagents?`,
    };
  }
  if (limit && x < limit.detection) {
    return {
      place: "undetected",
      text: `${show(x)} is below the limit of detection (${named}, ${show(limit.detection)}): say that it is less than that`,
    };
  }
  if (x > high) {
    const over = (100 * (x - high)) / high;
    return {
      place: "above",
      text: `It lies ${toSignificant(over, 2)} % above the strongest standard, where nobody has looked at the line: ${dilutionWords(x, high)}`,
    };
  }
  if (x < low) {
    return {
      place: "below",
      text: `It lies below the weakest standard, ${show(low)}: take more of it, or add a weaker standard`,
    };
  }
  if (limit && x < limit.quantitation) {
    return {
      place: "within",
      text: `${show(x)} can be told from nothing, but lies below the limit of quantitation (${named}, ${show(limit.quantitation)})`,
    };
  }
  return null;
}

function evaluateUnknownTrial(
  record: TrialRecord,
  stage: CompiledAssay,
  shared: Known,
  context: StageContext,
): SampleEvaluation {
  const { definition } = stage;
  const extra = new Map<string, Quantity>();
  const cautions: Check[] = [];
  let [found, problem]: [ReadQuantity | null, string | null] = [null, null];
  let range: RangeView | null = null;
  let readings: SampleEvaluation["readings"] = [];
  for (const input of definition.inputs) {
    if (input.is !== "read-off") continue;
    readings = readingsOf(record.observations, input.reading);
    const ys = counting(readings);
    const line = context.lines.get(input.stage);
    if (ys.length === 0 || context.suspended !== undefined) continue;
    const mean = ys.reduce((a, b) => a + b, 0) / ys.length;
    if (mean > strayLightFrom) {
      cautions.push({
        severity: "caution",
        message: `${mean.toFixed(2)} is so much that stray light counts: dilute it`,
      });
    }
    if (!line?.readOff) {
      problem = line?.problem ?? `${line?.definition.title ?? "The line"} has no line yet`;
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
      ...readingsChecks(sample.name, readings, found?.off ?? null, context.rules),
    ],
  };
}

interface Combined {
  readonly combined: CombinedResult | null;
  readonly members: readonly TrialEvaluation[];
}

function combine(stage: CompiledAssay, members: readonly TrialEvaluation[], context: StageContext): Combined {
  const { key, result } = stage.definition;
  return { members, combined: combineResult(members, result.symbol, key, context.rules) };
}

/** What every stage that averages over flasks or cuvettes shows of its result. */
function resultViews(stage: CompiledAssay, { combined, members }: Combined, context: StageContext) {
  const { definition } = stage;
  const { method, rules, earlier } = context;
  return {
    combined,
    shown: combined ? showQuantity(combined.quantity, definition.result, rules) : null,
    also: furtherResults(
      definition.also,
      (symbol) => {
        const further = combineResult(members, symbol, definition.key, rules);
        return further && [further.quantity, undefined];
      },
      rules,
    ),
    shares: combined ? sharesOfVariance(combined.quantity, shareGroups(method.method, stage, earlier)) : [],
  };
}

/** What is read once and was not typed yet, in words: nothing follows without it. */
function stillWanting(stage: CompiledAssay, record: StageRecord, { rules }: StageContext): string | null {
  const { field } =
    stageFieldStates(stage.definition, record, rules).find((f) => !f.present && !f.field.optional) ?? {};
  return field ? `${field.label} is still to be typed` : null;
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
  compiled: CompiledAssay,
  asWritten: UnknownStage,
  record: StageRecord,
  context: StageContext,
): UnknownEvaluation {
  const definition = inAskedUnit(asWritten, record);
  const stage: CompiledAssay = { ...compiled, definition };
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
  const told = trials.find((t) => t.problem && !t.record.struck)?.problem;
  const problem =
    combined || trials.length === 0
      ? null
      : (told ?? (disagree ? agreement.text : stillWanting(stage, record, context)));
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
      ? disagree && !told
        ? `${agreement.text} Make another flask from the sample, or strike out the wrong one`
        : problem
      : open
        ? `Read ${flaskWords(open.name)}: rinse the cuvette with it first, and wipe it`
        : members.length === 0
          ? "Read the unknown: rinse the cuvette with it first, and wipe it"
          : members.length === 1
            ? "One flask stands: a second one, made from the sample anew, tells how well the whole way repeats"
            : agreement.text.replace(/\.$/, "") + ": go on, or read another",
  };
}

/** Of a course with more readings than this every second, third … one is fitted; all are kept. */
const mostFitted = 20_000;

const comparedBefore = new WeakMap<TraceRecord, Map<string, ReturnType<typeof compareOrders>>>();

/** The three orders fitted to a course, which takes a while for ten thousand points: once for each window of it. */
function comparedOnce(trace: TraceRecord, window: readonly [number | null, number | null], fitEnd: boolean) {
  const known = comparedBefore.get(trace) ?? new Map<string, ReturnType<typeof compareOrders>>();
  comparedBefore.set(trace, known);
  const key = `${window.join(" to ")}${fitEnd ? " with its end" : ""}`;
  const there = known.get(key);
  if (there) return there;
  const fresh = compareOrders(
    thinned(windowOf({ seconds: trace.x, absorbance: trace.absorbance }, ...window), mostFitted),
    fitEnd,
  );
  known.set(key, fresh);
  return fresh;
}

function evaluateCourse(
  record: TrialRecord,
  stage: CompiledAssay,
  definition: RateStage,
  stageRecord: StageRecord,
  shared: Known,
  context: StageContext,
  order: Order | null,
): CourseEvaluation {
  const trace = traceOf(stageRecord, record.id);
  const symbol = definition.inputs.find((i) => i.is === "trace")?.symbol ?? "";
  const edge = (kind: "window.from" | "window.to") => {
    const present = presentObservation(record.observations, symbol, kind);
    return present ? Number(present.value) : null;
  };
  const window = [edge("window.from"), edge("window.to")] as const;
  const compared =
    trace && context.suspended === undefined
      ? comparedOnce(trace, window, stageRecord.choices?.end === "fitted")
      : null;
  const comparison = compared?.ok ? compared.value : null;
  const extra = new Map<string, Quantity>();
  if (comparison) {
    const fit = comparison.fits[order ?? comparison.best];
    const cause = leaf({
      id: `rate:${record.id}`,
      label: "Scatter of the readings about the rate law",
      group: "Scatter about the rate law",
      u: fit.u,
      random: true,
      degreesOfFreedom: fit.degreesOfFreedom,
    });
    const constant = measured(fit.k, rateUnits[fit.order], [{ leaf: cause, by: 1 }]);
    extra.set(definition.rate.symbol, byConcentration(constant, fit.order, definition, shared.quantities));
  }
  const sample = evaluateSample(record, stage, shared, context.method, context.rules, extra);
  return {
    ...sample,
    trace,
    window,
    comparison,
    problem: compared && !compared.ok ? compared.problem.message : sample.problem,
  };
}

/** How much absorbance a concentration makes: molar absorptivity times path; null where that was not stated. */
function absorbancePerConcentration({ rate }: RateStage, shared: Known["quantities"]): Quantity | null {
  const epsilon = rate.absorptivity === undefined ? undefined : shared.get(rate.absorptivity);
  const path = rate.path === undefined ? undefined : shared.get(rate.path);
  return epsilon && path ? multiply(epsilon, path) : null;
}

/**
 * A rate constant by absorbance as one by concentration: k/(ε l) at zero order, k ε l at second order. At first order it is the
 * same for both; without an absorptivity it stays by absorbance.
 */
function byConcentration(k: Quantity, order: Order, stage: RateStage, shared: Known["quantities"]): Quantity {
  const perConcentration = order === 1 ? null : absorbancePerConcentration(stage, shared);
  if (!perConcentration) return k;
  return order === 0 ? divide(k, perConcentration) : multiply(k, perConcentration);
}

/**
 * The stage as another order than the first has it: the method's relations are written for a first-order constant, so that of
 * another order is the result itself, in a unit of its own.
 */
function ofOrder(
  stage: CompiledAssay,
  definition: RateStage,
  order: Order,
  shared: Known["quantities"],
): { readonly stage: CompiledAssay; readonly definition: RateStage } {
  if (order === 1) return { stage, definition };
  const known = absorbancePerConcentration(definition, shared) !== null;
  const unit = known ? (order === 0 ? "mol/(L·s)" : "L/(mol·s)") : rateUnits[order];
  const name = `Rate constant, ${orderWord(order)} order${known ? "" : ", per absorbance"}`;
  const own: RateStage = {
    ...definition,
    relations: [],
    also: [],
    result: { symbol: definition.rate.symbol, name, unit },
  };
  return { stage: { ...stage, definition: own, lines: [] }, definition: own };
}

/** The order that most courses prefer, by their evidence; first where nothing can be told. */
function preferredOrder(courses: readonly CourseEvaluation[]): Order {
  const sums = [0, 0, 0];
  for (const { comparison, record } of courses) {
    if (comparison && !record.struck) for (const fit of comparison.fits) sums[fit.order]! += fit.evidence;
  }
  const best = sums.indexOf(Math.max(...sums));
  return Math.max(...sums) === 0 ? 1 : (best as Order);
}

/** Courses of absorbance in time, the order that they show, and the rate constant. */
export function evaluateRate(
  asWritten: CompiledAssay,
  rateStage: RateStage,
  record: StageRecord,
  context: StageContext,
): RateEvaluation {
  const { method, rules, earlier } = context;
  const shared = stageInputs(asWritten, record, earlier, { ...context, method: method.method });
  const course = (order: Order | null, of: ReturnType<typeof ofOrder>) =>
    record.trials.map((t) => evaluateCourse(t, of.stage, of.definition, record, shared, context, order));
  const typed = record.choices?.order;
  const chosen = typed === "0" || typed === "1" || typed === "2";
  const order = chosen
    ? (Number(typed) as Order)
    : preferredOrder(course(null, { stage: asWritten, definition: rateStage }));
  const { stage, definition } = ofOrder(asWritten, rateStage, order, shared.quantities);
  const trials = course(order, { stage, definition });
  const together = combine(
    stage,
    trials.filter((t) => t.eligible && t.result),
    context,
  );
  const { excess } = definition.rate;
  const runs = together.members.flatMap((t) => {
    const fit = (t as CourseEvaluation).comparison?.fits[order];
    const q = excess === undefined ? undefined : t.symbols.get(excess);
    return fit && q ? [{ concentration: inUnit(q, "mol/L"), k: fit.k, u: fit.u }] : [];
  });
  const open = trials.find((t) => !t.trace && !t.record.struck);
  const off = trials.find((t) => !t.record.struck && t.comparison?.levelsOff != null);
  const levels = off?.comparison?.levelsOff
    ? `The course of ${trialWords(off.name)} seems to level off near ${off.comparison.levelsOff.toFixed(3)}, not at zero: fit the end absorbance, or k is off`
    : undefined;
  return {
    kind: "rate",
    ...unjudged,
    key: definition.key,
    definition,
    done: together.combined !== null,
    stageFields: stageFieldStates(definition, record, rules),
    trials,
    order,
    chosen,
    endFitted: record.choices?.end === "fitted",
    dependence: runs.length > 1 ? orderInExcess(runs, (u, df) => plusMinusOf(u, df, rules.plusMinus)) : null,
    ...resultViews(stage, together, context),
    problem:
      together.combined || trials.length === 0
        ? null
        : (trials.find((t) => t.problem && !t.record.struck)?.problem ??
          stillWanting(stage, record, context)),
    cautions: [
      ...trials.flatMap((t) => (t.record.struck ? [] : t.cautions)),
      ...(levels === undefined ? [] : [{ severity: "caution" as const, message: levels }]),
    ],
    next:
      levels !== undefined
        ? levels
        : open
          ? `Take the course of ${trialWords(open.name)}, or bring it in from a file`
          : trials.length === 0
            ? "Mix, put the cuvette in, and take the absorbance each second"
            : runs.length === 1
              ? `${capitalized(orderWord(order))} order in the dye. Another run with another excess tells the order in that`
              : `${capitalized(orderWord(order))} order in the dye: go on, or take another course`,
  };
}
