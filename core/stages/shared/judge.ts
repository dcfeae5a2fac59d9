import { presumedOf, statedOf, takenOver, type Input } from "../../inputs";
import type { Check } from "../../measure";
import type { Quantity } from "../../quantity";
import { type ComputedStage, type Plausibility, perOf, resultsOf } from "../../method";
import { type CompiledMethod, type CompiledStage } from "../compiled";
import type { Earlier } from "./trial";
import {
  type ComputedEvaluation,
  isOnce,
  membersOf,
  resultQuantity,
  type TrialEvaluation,
  type Verdict,
  type Withheld,
} from "./evaluation";
import { type Observation, presentObservation, type StageRecord, type ObservationKind } from "../../record";
import {
  implausibilities,
  type Implausibility,
  implausibleWords,
  type PlausibilityInput,
} from "./plausibility";
import type { HouseRules } from "../../rules";
import { listed, uncapitalized, msg, type Phrase, inEnglish, sentences } from "../../text";

/** What a stage's result rests on, carried along to the stages that use it. */
export interface Footing {
  /** Values that nobody stated, as parts of a sentence: "a presumed concentration of the iodine". */
  readonly restsOn: readonly Phrase[];
  /** What is not counted in the ±, as parts of a sentence: "the ± of the concentration of the iodine, not stated". */
  readonly leftOut: readonly Phrase[];
  /** Masses that the house corrects for the buoyancy of air, but whose density is not stated. */
  readonly uncorrected: readonly Phrase[];
}

/** What a stage without a result hands on. */
export const noFooting: Footing = { restsOn: [], leftOut: [], uncorrected: [] };

const unique = (texts: readonly Phrase[]): Phrase[] => [
  ...new Map(texts.map((text) => [inEnglish(text), text] as const)).values(),
];

/** Inputs that are taken once and that nobody stated: the method's own figures stand for them. */
function presumedInputs({ inputs }: ComputedStage, observations: readonly Observation[]): Input[] {
  return inputs.filter((input) => {
    const [kind] = perOf(input) === "run" ? (Object.keys(presumedOf(input)) as ObservationKind[]) : [];
    return kind !== undefined && !presentObservation(observations, input.symbol, kind);
  });
}

const presumedWords = (input: Input): Phrase =>
  "presumed" in input && typeof input.presumed === "string"
    ? msg`a presumed volume (${uncapitalized(input.label)}: ${input.presumed} mL)`
    : msg`a presumed ${uncapitalized(input.label)}`;

/** Inputs whose value somebody typed without saying how well it is known. */
function withoutPlusMinus(definition: ComputedStage, record: StageRecord): Input[] {
  const target = definition.accept?.symbol;
  return definition.inputs.filter((input) => {
    const stated = statedOf(input);
    if (input.symbol === target || !stated || stated.exact) return false;
    const holders =
      perOf(input) === "run"
        ? [record.observations]
        : record.trials.filter((t) => !t.struck).map((t) => t.observations);
    return holders.some(
      (observations) =>
        presentObservation(observations, input.symbol, stated.value) !== null &&
        stated.spreads.every((kind) => presentObservation(observations, input.symbol, kind) === null),
    );
  });
}

function footingOf(
  definition: ComputedStage,
  record: StageRecord,
  earlier: ReadonlyMap<string, Footing>,
  { balance }: HouseRules,
): Footing {
  // What a result is only held against is no part of it.
  const target = definition.accept?.symbol;
  const inherited = definition.inputs.flatMap((input) => {
    const from = input.symbol === target ? undefined : takenOver(input)?.stage;
    return from === undefined ? [] : (earlier.get(from) ?? []);
  });
  return {
    restsOn: unique([
      ...presumedInputs(definition, record.observations).map(presumedWords),
      ...inherited.flatMap(({ restsOn }) => restsOn),
    ]),
    leftOut: unique([
      ...withoutPlusMinus(definition, record).map(
        ({ label }) => msg`the ± of ${uncapitalized(label)}, which is not stated`,
      ),
      ...inherited.flatMap(({ leftOut }) => leftOut),
    ]),
    uncorrected: unique([
      ...definition.inputs.flatMap((input) =>
        balance.correctBuoyancy && input.is === "mass" && input.densityGPerMl === undefined
          ? [uncapitalized(input.label)]
          : [],
      ),
      ...inherited.flatMap(({ uncorrected }) => uncorrected),
    ]),
  };
}

/** What a result rests on, in a sentence; empty where nothing was presumed and all is counted. */
export function footingWords({ restsOn, leftOut, uncorrected }: Footing): Phrase {
  const rests = restsOn.length > 0 ? msg`It rests on ${listed(restsOn)}.` : "";
  const without = leftOut.length > 0 ? msg`Not counted in the ±: ${listed(leftOut)}.` : "";
  const heavy =
    uncorrected.length > 0
      ? msg`Not corrected for buoyancy, since no density is stated: ${listed(uncorrected)}.`
      : "";
  return sentences([rests, without, heavy]);
}

export interface JudgedIn {
  readonly compiled: CompiledStage;
  readonly method: CompiledMethod;
  readonly rules: HouseRules;
  readonly record: StageRecord;
  readonly earlier: Earlier;
  readonly footings: ReadonlyMap<string, Footing>;
}

const isResult = (definition: ComputedStage, { symbol }: Plausibility) =>
  resultsOf(definition).some((r) => r.symbol === symbol);

function verdictWith(verdict: Verdict, footing: Phrase, impossible: readonly Implausibility[]): Verdict {
  const reason = footing === "" ? verdict.reason : msg`${verdict.reason} ${footing}`;
  const [first] = impossible;
  if (!first) return { ...verdict, reason: reason };
  return {
    ...verdict,
    state: verdict.state === "agreed" ? "impossible" : verdict.state,
    reason: msg`${first.text}. ${reason}`,
    next: verdict.state === "agreed" ? msg`First check ${first.look[0] ?? msg`the readings`}` : verdict.next,
  };
}

/**
 * The last look at a stage, whatever its kind: further results that cannot be told are withheld, results that cannot be are
 * not passed as done, and what the result rests on stands with it.
 */
export function judgeStage<E extends ComputedEvaluation>(stage: E, at: JudgedIn): E {
  const { method, rules, record, earlier, footings } = at;
  const definition: ComputedStage = stage.definition;
  const compiled: CompiledStage = { ...at.compiled, definition };
  const main = resultQuantity(stage);
  const known: ReadonlyMap<string, Quantity> = isOnce(stage)
    ? stage.symbols
    : (membersOf(stage)[0]?.symbols ?? new Map<string, Quantity>());
  const { also, withheld } = givenResults(stage, known);
  const presumed = new Set(presumedInputs(definition, record.observations).map(({ symbol }) => symbol));
  const input = (symbols: ReadonlyMap<string, Quantity>, quantityOf: PlausibilityInput["quantityOf"]) => ({
    stage: compiled,
    method: method.method,
    stoichiometry: method.stoichiometry,
    rules,
    symbols,
    presumed,
    quantityOf,
    earlierOf: (key: string, symbol: string) => earlier.get(key)?.get(symbol)?.quantity ?? null,
  });
  const implausible = main
    ? implausibilities(
        input(known, (symbol) =>
          symbol === definition.result.symbol
            ? main
            : (also.find((a) => a.definition.symbol === symbol)?.quantity ?? known.get(symbol) ?? null),
        ),
        (rule) => isResult(definition, rule) || isOnce(stage),
      )
    : [];
  const footing = footingOf(definition, record, footings, rules);
  const impossible = implausible.filter(({ outside }) => outside === "impossible");
  const judged = {
    ...stage,
    also,
    withheld,
    implausible,
    ...(main ? footing : { restsOn: [], leftOut: [], uncorrected: [] }),
    done: stage.done && impossible.length === 0,
    cautions: [...stage.cautions, ...implausible.map(cautionOf)],
  };
  const ofFlasks = (trial: TrialEvaluation): Check[] =>
    implausibilities(
      input(trial.symbols, (symbol) => trial.symbols.get(symbol) ?? null),
      (rule) => !isResult(definition, rule),
    ).map(cautionOf);
  const footingText = main ? footingWords(footing) : "";
  if (judged.kind === "titration") {
    const trials = judged.trials.map((t) => {
      const checks = t.record.struck || t.missing ? [] : ofFlasks(t);
      return checks.length === 0 ? t : { ...t, cautions: [...t.cautions, ...checks] };
    });
    return { ...judged, trials, verdict: verdictWith(judged.verdict, footingText, impossible) };
  }
  const [first] = impossible;
  return first && "next" in judged ? { ...judged, next: implausibleWords(first) } : judged;
}

/** The further results that are given, and those that are withheld, with the reason. */
function givenResults(stage: ComputedEvaluation, known: ReadonlyMap<string, Quantity>) {
  const withheld: Withheld[] = [];
  const also = stage.also.filter(({ definition: { name, when } }) => {
    if (!when || Math.abs((known.get(when.symbol)?.value ?? NaN) - when.is) < 1e-9) return true;
    withheld.push({ name, why: when.otherwise });
    return false;
  });
  return { also, withheld };
}

/** The footing of a stage that was judged, for those that use its result. */
export const footingOfStage = ({ restsOn, leftOut, uncorrected }: ComputedEvaluation): Footing => ({
  restsOn,
  leftOut,
  uncorrected,
});

const cautionOf = (found: Implausibility): Check => ({
  severity: "caution",
  kind: "impossible",
  message: implausibleWords(found),
});
