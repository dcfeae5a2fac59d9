import {
  bestFit,
  type CurvePoint,
  type CurveSetting,
  type EndByWay,
  inOrder,
  protonsAt,
  uncertaintyOfEnd,
  type Way,
} from "../../curves";
import { pKwAt } from "../../equilibria";
import { type CurveInput, type InputOf, meterOf, volumeConditions } from "../../inputs";
import { type Check, foundVolume } from "../../measure";
import type { CurveStage } from "../../method";
import { exact, inUnit, leaf, measured, type Quantity } from "../../quantity";
import { pointsOf, presentObservation, type StageRecord, type TrialRecord } from "../../record";
import { dropsPerMl, type HouseRules } from "../../rules";
import { msg, type Phrase } from "../../text";
import type { CompiledStage } from "../compiled";
import { judgeFlasks } from "../unknown/flasks";
import { judgeAcceptance } from "../shared/accept";
import {
  type CurveEnd,
  type CurveEvaluation,
  type CurveStageEvaluation,
  unjudged,
} from "../shared/evaluation";
import { combine, resultViews, stillWanting } from "../shared/replicates";
import type { StageContext } from "../shared/stage";
import { evaluateSample, type KnownQuantities, stageFieldStates, stageInputs } from "../shared/trial";
import { cautionsOfCurve } from "./cautions";
import { expectedEnds } from "./expected";
import { type PointsRead, readerOf } from "./meters";
import { readOnce, readWhole } from "./read-once";

type Stage = CompiledStage<CurveStage>;

/** Choices that a person made for all curves of the stage. */
interface Chosen {
  readonly way: Way | null;
  readonly protons: number | null;
  readonly offset: boolean;
  readonly carbonate: boolean;
  /** True where the first curve is taken towards the end that the method presumes. */
  readonly ahead: boolean;
}

const curveOf = ({ inputs }: CurveStage): CurveInput =>
  inputs.find((input): input is InputOf<"curve"> => input.is === "curve")!;

/** Where the curve of a stage stands among the inputs of its flasks, and its volumes at what temperature. */
function settingOf(
  { curve }: CurveStage,
  input: CurveInput,
  shared: KnownQuantities,
  rules: HouseRules,
  { offset, carbonate }: Chosen,
): CurveSetting {
  const titrant = curve.titrant.symbol === undefined ? null : shared.quantities.get(curve.titrant.symbol);
  return {
    flaskMl: curve.flaskMl,
    titrant: titrant ? inUnit(titrant, "mol/L") : curve.titrant.usual,
    pKw: pKwAt(Number(rules.temperature.labC)),
    uPH: readerOf(input).scatter,
    uMl: Number(rules.burette.readingHalfWidthMl) / Math.sqrt(3),
    ...(offset ? { offset } : {}),
    ...(carbonate ? { carbonate } : {}),
    ...(curve.strong ? { strong: true } : {}),
    ...(curve.ends.length > 1 && !curve.strong ? { mixture: true } : {}),
  };
}

const places: Readonly<Record<CurveStage["curve"]["ends"][number]["at"], (count: number) => number>> = {
  first: () => 0,
  second: () => 1,
  last: (count) => count - 1,
};

/** The ends that the relations ask for, each in the way that is taken: the method's own, the chosen one, else the best. */
function endsOf({ curve }: CurveStage, { ends }: PointsRead, { way }: Chosen): CurveEnd[] {
  // With fewer jumps than ends are asked for, none of them can be told.
  const needed = Math.max(1, curve.ends.filter(({ way: only }) => only === undefined).length);
  return curve.ends.map(({ symbol, name, at, way: only }): CurveEnd => {
    const ways = ends.length < needed ? [] : (ends[places[at](ends.length)] ?? []);
    const asked = only ?? way;
    const taken = asked === null ? ways[0] : ways.find((one) => one.way === asked);
    return { symbol, name, ways, taken: taken ?? (only === undefined ? (ways[0] ?? null) : null) };
  });
}

/** The volume of an end with all its causes. */
function volumeOf(
  end: EndByWay,
  symbol: string,
  trialId: string,
  stageKey: string,
  rules: HouseRules,
): Quantity {
  const { capacityMl, readingHalfWidthMl } = rules.burette;
  const found = leaf({
    id: `curve:${trialId}:${symbol}`,
    kind: "curve",
    label: msg`End point found on the curve`,
    group: msg`Reading of the curve`,
    u: uncertaintyOfEnd(end, Number(readingHalfWidthMl) / Math.sqrt(3)),
    shape: end.degreesOfFreedom === undefined ? "rectangular" : "normal",
    random: true,
    stage: stageKey,
    ...(end.degreesOfFreedom === undefined ? {} : { degreesOfFreedom: end.degreesOfFreedom }),
  });
  return foundVolume(
    {
      ...{ stage: stageKey, trial: trialId, capacityMl, volumeMl: end.volume, found },
      readingHalfWidthMl: Number(readingHalfWidthMl),
    },
    volumeConditions(rules),
  );
}

/** Constants by the fit that is taken, else half way to each end; u of the latter is that of the meter's scatter. */
function constantsOf({ reading }: PointsRead, protons: number | null, scatter: number) {
  if (!reading || reading.strong) return [];
  const best = protons === null ? bestFit(reading) : reading.fits.find((f) => f.protons === protons);
  if (best) return best.fit.pKas.map(({ value, u }) => ({ value, u, df: best.fit.degreesOfFreedom }));
  return reading.ends.flatMap(({ halfWay }) =>
    halfWay === null ? [] : [{ value: halfWay, u: scatter, df: 1e9 }],
  );
}

/** Protons that the last end stands for: as stated, by the fit, or one for each jump. */
function protonsOf({ reading }: PointsRead, stated: number | null): number | null {
  if (stated !== null) return stated;
  const last = reading?.ends.at(-1);
  if (!reading || !last) return null;
  const best = bestFit(reading);
  return best ? protonsAt(reading, last, best.protons) : reading.strong ? 1 : null;
}

/** What the curve gives to the relations. */
function foundOf(
  { definition }: Stage,
  input: CurveInput,
  read: PointsRead,
  ends: readonly CurveEnd[],
  trialId: string,
  { protons }: Chosen,
  rules: HouseRules,
): Map<string, Quantity> {
  const { key, curve } = definition;
  const found = new Map<string, Quantity>();
  if (ends.some(({ taken }) => taken === null)) return found;
  const count = protonsOf(read, protons);
  // Relations that ask for the protons wait until they are told, or stated.
  if (curve.protons !== undefined && count === null) return found;
  for (const { symbol, taken } of ends)
    if (taken) found.set(symbol, volumeOf(taken, symbol, trialId, key, rules));
  const constants = constantsOf(read, protons, readerOf(input).scatter);
  (curve.constants ?? []).forEach((symbol, i) => {
    const one = constants[i];
    if (!one) return;
    const own = leaf({
      id: `curve:${trialId}:${symbol}`,
      kind: "curve",
      label: msg`${symbol} found on the curve`,
      group: msg`Reading of the curve`,
      u: one.u,
      random: true,
      degreesOfFreedom: one.df,
      stage: key,
    });
    const meter = leaf({
      id: `meter:${key}`,
      kind: "pH-meter",
      label: msg`${meterOf(input).instrument} against its buffers`,
      group: msg`Meter`,
      shape: "rectangular",
      u: Number(input.plusMinus) / Math.sqrt(3),
      stage: key,
    });
    found.set(
      symbol,
      measured(one.value, "1", [
        { leaf: own, by: 1 },
        { leaf: meter, by: 1 },
      ]),
    );
  });
  if (curve.protons !== undefined && count !== null) found.set(curve.protons, exact(count, "1"));
  return found;
}

/** One curve: its points by the volume added, what they tell, and what to add next. */
function evaluateCurve(
  record: TrialRecord,
  stage: Stage,
  shared: KnownQuantities,
  context: StageContext,
  chosen: Chosen,
  before: readonly CurveEvaluation[],
): CurveEvaluation {
  const { definition } = stage;
  const { rules, method } = context;
  const input = curveOf(definition);
  const start = presentObservation(record.observations, input.symbol, "burette.initial");
  const startMl = start ? Number(start.value) : null;
  const taken = pointsOf(record.observations, input.symbol);
  const points = inOrder(
    taken.flatMap(({ struck, buretteMl, value }) =>
      struck || startMl === null ? [] : [{ volume: round(buretteMl - startMl), value }],
    ),
  );
  const setting = settingOf(definition, input, shared, rules, chosen);
  const idle: PointsRead = { reading: null, crossing: null, ends: [] };
  const plain = context.suspended === undefined ? readOnce(points, input, { ...setting, fits: false }) : idle;
  const expected = expectedEnds(record, stage, shared, context, before);
  const { curve } = definition;
  // What a method presumes counts where somebody goes by it.
  const ahead = expected.by === "curve" || chosen.ahead ? expected.ml : [];
  const next = readerOf(input).next(points, plain, {
    dropMl: 1 / Number(dropsPerMl(rules)),
    ...{ largestMl: curve.largestMl, until: curve.until ?? 0, expected: ahead },
  });
  // The whole curve is fitted once it is whole.
  const whole = next.do === "stop" && context.suspended === undefined;
  const fitted = whole ? readWhole(points, input, setting) : plain;
  const read = fitted ?? plain;
  const ends = endsOf(definition, read, chosen);
  const found =
    fitted && (whole || settled(ends, points))
      ? foundOf(stage, input, read, ends, record.id, chosen, rules)
      : new Map<string, Quantity>();
  const sample = evaluateSample(record, stage, shared, method, rules, found, true);
  const told = cautionsOfCurve({
    ...{ input, points, read, ends, next, rules, curve },
    protons: chosen.protons,
  });
  return {
    ...sample,
    ...{ startMl, taken, points, next, ends, setting, expected, fitting: fitted === null },
    reading: read.reading,
    crossing: read.crossing,
    cautions: [...sample.cautions, ...told],
  };
}

/** Volumes are differences of decimals: twelve places keep what binary numbers add out of them. */
const round = (ml: number): number => Math.round(ml * 1e9) / 1e9;

/** An end counts before the curve is whole once some points lie beyond it. */
function settled(ends: readonly CurveEnd[], points: readonly CurvePoint[]): boolean {
  const last = Math.max(...ends.map(({ taken }) => taken?.volume ?? Infinity));
  return points.filter(({ volume }) => volume > last).length >= 3;
}

const chosenIn = ({ choices = {} }: StageRecord): Chosen => ({
  way: (choices.way as Way | undefined) ?? null,
  protons: choices.protons === undefined ? null : Number(choices.protons),
  offset: choices.offset === "fitted",
  carbonate: choices.carbonate === "fitted",
  ahead: choices.ahead === "theory",
});

/** Why curves that agree in their volumes give no result all the same: a mean over different numbers of protons is none. */
function unlikeProtons({ curve }: CurveStage, trials: readonly CurveEvaluation[]): Phrase | null {
  const { protons } = curve;
  if (protons === undefined) return null;
  const counts = trials.flatMap(({ symbols }) => symbols.get(protons)?.value ?? []);
  const [least, most] = [Math.min(...counts), Math.max(...counts)];
  return counts.length < 2 || least === most
    ? null
    : msg`The curves do not tell the same number of protons, ${least} and ${most}: state it, or look for a wrong point`;
}

/** Curves of a stage, whether they agree, and the result over those that do. */
export function evaluateCurves(
  stage: Stage,
  record: StageRecord,
  context: StageContext,
): CurveStageEvaluation {
  const { definition } = stage;
  const { method, rules, earlier } = context;
  const shared = stageInputs(stage, record, earlier, { ...context, method: method.method });
  const chosen = chosenIn(record);
  const trials: CurveEvaluation[] = [];
  for (const one of record.trials) trials.push(evaluateCurve(one, stage, shared, context, chosen, trials));
  const agreement = judgeFlasks(trials, definition, rules);
  const agreed = trials.filter((t) => agreement.members.includes(t.id));
  const unlike = unlikeProtons(definition, agreed);
  const together = combine(stage, unlike === null ? agreed : [], context);
  const { combined, members } = together;
  const disagree = agreement.state === "apart" || agreement.state === "rivals";
  const current = trials.findLast((t) => !t.record.struck && t.next.do === "add") ?? null;
  const ofTrial = trials.find((t) => t.problem && !t.record.struck)?.problem ?? null;
  const problem =
    combined || trials.length === 0 || trials.some(({ fitting }) => fitting)
      ? null
      : (unlike ?? ofTrial ?? (disagree ? agreement.text : stillWanting(stage, record, context)));
  return {
    kind: "curve",
    ...unjudged,
    key: definition.key,
    definition,
    done: combined !== null && current === null,
    stageFields: stageFieldStates(definition, record, rules),
    ...{ trials, current, agreement, way: chosen.way, protons: chosen.protons },
    fitted: { offset: chosen.offset, carbonate: chosen.carbonate },
    ahead: chosen.ahead,
    ...resultViews(stage, together, context),
    problem,
    acceptance: judgeAcceptance(
      definition,
      combined?.quantity ?? null,
      shared.quantities,
      { agreed: true, titrations: members.length },
      rules,
    ),
    cautions: trials.flatMap((t): readonly Check[] => (t.record.struck ? [] : t.cautions)),
    next: nextOf(current, trials, problem, agreement),
  };
}

function nextOf(
  current: CurveEvaluation | null,
  trials: readonly CurveEvaluation[],
  problem: Phrase | null,
  { text }: CurveStageEvaluation["agreement"],
): Phrase {
  if (current) {
    const { missing, next } = current;
    if (missing && missing.kind !== "point") return msg`Next: ${missing.label}`;
    if (current.points.length === 0) return msg`Read the meter before anything is added`;
    return next.do === "add" ? msg`Add ${next.ml.toFixed(2)} mL. ${next.why}` : next.why;
  }
  if (trials.some(({ fitting }) => fitting)) return msg`The whole curve is being fitted`;
  if (problem !== null) return problem;
  if (trials.length === 0) return msg`Begin the first curve: what is weighed or taken, then the burette`;
  return trials.length === 1
    ? msg`The curve is taken. A second one shows how well the whole procedure repeats`
    : msg`${text} Go on, or take another curve`;
}
