import {
  type TraceRecord,
  type TrialRecord,
  type StageRecord,
  traceOf,
  presentObservation,
} from "../../record";
import { compareOrders, windowOf, type Order, rateUnits, orderWord, orderInExcess } from "../../kinetics";
import type { RateStage } from "../../method";
import { type KnownQuantities, evaluateSample, stageInputs, stageFieldStates } from "../shared/trial";
import type { CompiledStage } from "../compiled";
import type { StageContext } from "../shared/stage";
import { judgeOnce } from "../shared/accept";
import { type CourseEvaluation, type RateEvaluation, unjudged } from "../shared/evaluation";
import { type Quantity, leaf, measured, multiply, divide, inUnit } from "../../quantity";
import { combine, resultViews, stillWanting } from "../shared/replicates";
import { capitalized, msg, type Phrase, inEnglish } from "../../text";
import { plusMinusOf } from "../../judgement";

const comparedBefore = new WeakMap<TraceRecord, Map<string, ReturnType<typeof compareOrders>>>();

/** The three orders fitted to a course, which takes a while for ten thousand points: once for each window of it. */
function comparedOnce(trace: TraceRecord, window: readonly [number | null, number | null], fitEnd: boolean) {
  const known = comparedBefore.get(trace) ?? new Map<string, ReturnType<typeof compareOrders>>();
  comparedBefore.set(trace, known);
  const key = `${window.join(" to ")}${fitEnd ? " with its end" : ""}`;
  const there = known.get(key);
  if (there) return there;
  const read = windowOf({ seconds: trace.x, absorbance: trace.absorbance }, ...window);
  const fresh = compareOrders(read, fitEnd);
  known.set(key, fresh);
  return fresh;
}

function evaluateCourse(
  record: TrialRecord,
  stage: CompiledStage<RateStage>,
  stageRecord: StageRecord,
  shared: KnownQuantities,
  context: StageContext,
  order: Order | null,
): CourseEvaluation {
  const { definition } = stage;
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
      kind: "rate",
      label: msg`Scatter of the readings about the rate law`,
      group: msg`Scatter about the rate law`,
      u: fit.u,
      random: true,
      degreesOfFreedom: fit.degreesOfFreedom,
    });
    const constant = measured(fit.k, rateUnits[fit.order], [{ leaf: cause, by: 1 }]);
    extra.set(definition.rate.symbol, byConcentration(constant, fit.order, definition, shared.quantities));
  }
  const sample = evaluateSample(record, stage, shared, context.method, context.rules, extra, true);
  return {
    ...sample,
    trace,
    window,
    comparison,
    problem: compared && !compared.ok ? compared.problem.message : sample.problem,
  };
}

/** How much absorbance a concentration makes: molar absorptivity times path; null where that was not stated. */
function absorbancePerConcentration(
  { rate }: RateStage,
  shared: KnownQuantities["quantities"],
): Quantity | null {
  const epsilon = rate.absorptivity === undefined ? undefined : shared.get(rate.absorptivity);
  const path = rate.path === undefined ? undefined : shared.get(rate.path);
  return epsilon && path ? multiply(epsilon, path) : null;
}

/**
 * A rate constant by absorbance as one by concentration: k/(ε l) at zero order, k ε l at second order. At first order it is the
 * same for both; without an absorptivity it stays by absorbance.
 */
function byConcentration(
  k: Quantity,
  order: Order,
  stage: RateStage,
  shared: KnownQuantities["quantities"],
): Quantity {
  const perConcentration = order === 1 ? null : absorbancePerConcentration(stage, shared);
  if (!perConcentration) return k;
  return order === 0 ? divide(k, perConcentration) : multiply(k, perConcentration);
}

/**
 * The stage as another order than the first has it: the method's relations are written for a first-order constant, so that of
 * another order is the result itself, in a unit of its own.
 */
function ofOrder(
  stage: CompiledStage<RateStage>,
  order: Order,
  shared: KnownQuantities["quantities"],
): CompiledStage<RateStage> {
  if (order === 1) return stage;
  const { definition } = stage;
  const known = absorbancePerConcentration(definition, shared) !== null;
  const unit = known ? (order === 0 ? "mol/(L·s)" : "L/(mol·s)") : rateUnits[order];
  const name = inEnglish(
    known
      ? msg`Rate constant, ${orderWord(order)} order`
      : msg`Rate constant, ${orderWord(order)} order, per absorbance`,
  );
  const own: RateStage = {
    ...definition,
    relations: [],
    also: [],
    result: { symbol: definition.rate.symbol, name, unit },
  };
  return { ...stage, definition: own, lines: [] };
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
  asWritten: CompiledStage<RateStage>,
  record: StageRecord,
  context: StageContext,
): RateEvaluation {
  const { method, rules, earlier } = context;
  const shared = stageInputs(asWritten, record, earlier, { ...context, method: method.method });
  const course = (order: Order | null, of: CompiledStage<RateStage>) =>
    record.trials.map((t) => evaluateCourse(t, of, record, shared, context, order));
  const typed = record.choices?.order;
  const chosen = typed === "0" || typed === "1" || typed === "2";
  const order = chosen ? (Number(typed) as Order) : preferredOrder(course(null, asWritten));
  const stage = ofOrder(asWritten, order, shared.quantities);
  const { definition } = stage;
  const trials = course(order, stage);
  const together = combine(
    stage,
    trials.filter((t) => t.eligible && t.result),
    context,
  );
  const { excess } = definition.rate;
  const runs = runsInExcess(together, order, excess);
  const open = trials.find((t) => !t.trace && !t.record.struck);
  const levels = levelsOffWords(trials);
  return {
    kind: "rate",
    ...unjudged,
    acceptance: judgeOnce(definition, together.combined?.quantity ?? null, shared.quantities, rules),
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
    next: nextOf({ levels, open, trials, runs, order }),
  };
}

function runsInExcess({ members }: ReturnType<typeof combine>, order: Order, excess: string | undefined) {
  return members.flatMap((t) => {
    const fit = (t as CourseEvaluation).comparison?.fits[order];
    const q = excess === undefined ? undefined : t.symbols.get(excess);
    return fit && q ? [{ concentration: inUnit(q, "mol/L"), k: fit.k, u: fit.u }] : [];
  });
}

function levelsOffWords(trials: CourseEvaluation[]) {
  const off = trials.find((t) => !t.record.struck && t.comparison?.levelsOff != null);
  return off?.comparison?.levelsOff
    ? msg`The absorbance of ${off.words} levels off near ${off.comparison.levelsOff.toFixed(3)}, not at zero: fit the end absorbance, or k will be wrong`
    : undefined;
}

function nextOf({
  levels,
  open,
  trials,
  runs,
  order,
}: {
  readonly levels: Phrase | undefined;
  readonly open: CourseEvaluation | undefined;
  readonly trials: CourseEvaluation[];
  readonly runs: readonly unknown[];
  readonly order: Order;
}) {
  return levels !== undefined
    ? levels
    : open
      ? msg`Record ${open.words}, or import it from a file`
      : trials.length === 0
        ? msg`Mix, put the cuvette in, and take the absorbance each second`
        : runs.length === 1
          ? msg`${capitalized(orderWord(order))} order in the dye. A second run with a different excess gives the order in the excess reagent`
          : msg`${capitalized(orderWord(order))} order in the dye: go on, or take another kinetic run`;
}
