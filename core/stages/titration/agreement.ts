import { mean } from "../../statistics";
import {
  bestConcordantSet,
  type Concordance,
  decidingWindows,
  joiningWindow,
  noOutlierTest,
  outlierAdvice,
  type Window,
  type ConcordantSet,
} from "../../judgement";
import { inUnit, toDecimals, toSignificant, withUnit } from "../../quantity";
import { inputOf } from "../../method";
import { type CompiledTitration } from "./compile";
import { perUnit } from "./trial";
import type { AgreementView, TrialEvaluation } from "../shared/evaluation";
import { type AgreementRule, type HouseRules, buretteDecimals, replicatesNeeded } from "../../rules";
import { countWord, uncapitalized, msg, type Phrase, unitText } from "../../text";

export interface Reference {
  /** Titers are compared as if every flask held this amount; 1 where they are compared as they stand. */
  readonly amount: number;
  readonly label: Phrase;
}

/**
 * The amount that titers are scaled to: the flasks' own where all are alike, so that titers are compared as read; else
 * the mean of the flasks, rounded to two figures so that it stays put from trial to trial.
 */
export function referenceAmount(stage: CompiledTitration, trials: readonly TrialEvaluation[]): Reference {
  const { per } = stage.definition.agree;
  const unit = perUnit(stage);
  if (per === undefined || unit === "") return { amount: 1, label: "" };
  const amountsOf = (chosen: readonly TrialEvaluation[]) =>
    chosen.flatMap(({ symbols, titerMl }) => {
      const amount = symbols.get(per);
      return amount && titerMl !== null ? [inUnit(amount, unit)] : [];
    });
  const eligible = amountsOf(trials.filter((t) => t.eligible));
  const amounts = eligible.length > 0 ? eligible : amountsOf(trials);
  const [first] = amounts;
  if (first === undefined) return { amount: 1, label: "" };
  const alike = amounts.every((amount) => Math.abs(amount - first) < 1e-9);
  if (alike && inputOf(stage.definition, per)?.is !== "mass") {
    return { amount: first, label: msg`per ${withUnit(toDecimals(first, 2), unit)}` };
  }
  const rounded = toSignificant(mean(amounts), 2);
  return { amount: Number(rounded), label: msg`per ${withUnit(rounded, unit)}` };
}

const concordanceOf = (rule: AgreementRule): Concordance => {
  switch (rule.rule) {
    case "n-within":
    case "two-else-third":
      return { rule: "range", width: Number(rule.withinMl) };
    case "within-of-mean":
      return { rule: "from-mean", width: Number(rule.withinMl) };
    case "identical":
      return { rule: "identical" };
    case "relative-spread":
      return { rule: "relative-range", part: Number(rule.partsPerThousand) / 1000 };
  }
};

/** The house's rule in words. */
export function ruleWords(rule: AgreementRule): Phrase {
  const needed = replicatesNeeded(rule);
  if (needed === 1) return msg`House rule: one trial is enough.`;
  const n = countWord(needed);
  switch (rule.rule) {
    case "n-within":
      return msg`House rule: ${n} within ${rule.withinMl} mL of each other.`;
    case "within-of-mean":
      return msg`House rule: ${n} within ±${rule.withinMl} mL of their mean.`;
    case "identical":
      return msg`House rule: ${n} that read the same.`;
    case "relative-spread":
      return msg`House rule: ${n} with a range of at most ${rule.partsPerThousand} ‰ of their mean.`;
    case "two-else-third":
      return msg`House rule: two within ${rule.withinMl} mL, else a third.`;
  }
}

/** Compared values rounded as readings are, so that "the same" means the same digits. */
const rounded = (value: number, decimals: number) => Math.round(value * 10 ** decimals) / 10 ** decimals;

interface ComparedValues {
  readonly values: ReadonlyMap<string, number>;
  readonly unit: string;
  readonly decimals: number;
  readonly label: Phrase;
}

/**
 * What is compared, by trial. Titers, or titers per amount scaled to one flask, are compared in mL. Results are compared as
 * mL of titer, by how far each lies from their mean and what one mL changes it in that flask, so that a width in mL means the
 * same for them; a relative rule takes the results themselves.
 */
export function comparedValues(
  stage: CompiledTitration,
  trials: readonly TrialEvaluation[],
  reference: Reference,
  rules: HouseRules,
): ComparedValues {
  const byResult = stage.compares === "result" || rules.agreementOf === "results";
  const decimals = buretteDecimals(rules);
  if (!byResult) {
    const values = trials.flatMap(({ id, compared }) =>
      compared === null ? [] : [[id, compared * reference.amount] as const],
    );
    const label = reference.label === "" ? msg`titer, mL` : msg`titer, mL, ${reference.label}`;
    return { values: new Map(values), unit: "mL", decimals, label };
  }
  const done = trials.flatMap(({ id, result, titerMl, eligible }) =>
    result && titerMl !== null ? [{ id, result, titerMl, eligible }] : [],
  );
  const { unit, name } = stage.definition.result;
  if (rules.agreement.rule === "relative-spread") {
    const values = done.map(({ id, result }) => [id, inUnit(result, unit)] as const);
    const typical = mean(values.map(([, value]) => Math.abs(value)));
    const places = Math.max(0, 3 - Math.floor(Math.log10(typical || 1)));
    const shownUnit = unit === "1" ? "" : msg`, ${unitText(unit)}`;
    return {
      values: new Map(values),
      unit,
      decimals: places,
      label: msg`${uncapitalized(name)}${shownUnit}`,
    };
  }
  const counted = done.some((t) => t.eligible) ? done.filter((t) => t.eligible) : done;
  const center = mean(counted.map(({ result }) => result.value));
  const titer = mean(counted.map(({ titerMl }) => titerMl));
  const values = done.flatMap(({ id, result }) => {
    // The burette's own cause tells what one mL of titer changes in this flask's result.
    const perMl = result.sensitivities.get(`burette:${stage.definition.key}`)?.by ?? 0;
    return perMl === 0 ? [] : [[id, titer + (result.value - center) / perMl] as const];
  });
  return { values: new Map(values), unit: "mL", decimals, label: msg`result, as mL of titer` };
}

/** How the trials that count stand to each other. */
function stateOf(set: ConcordantSet | null, count: number): AgreementView["state"] {
  if (!set) return "none";
  if (count === 1) return "one";
  if (set.members.length === 1) return "apart";
  return set.rivals.length > 0 ? "rivals" : "set";
}

/** Where the next compared value would join a set, or close it. */
function windowsFor(
  set: ConcordantSet,
  values: readonly number[],
  concordance: Concordance,
  { closed, needed, missing }: Pick<AgreementView, "closed" | "needed" | "missing">,
  { unit, decimals, resolutionMl }: Pick<ComparedValues, "unit" | "decimals"> & { resolutionMl: number },
): readonly Window[] {
  if (closed) {
    const [low, high] = joiningWindow(set, concordance);
    // Identical readings leave a window of no width, drawn open by half a step of the scale.
    const open = concordance.rule === "identical" ? 0.5 / 10 ** decimals : 0;
    return [[low - open, high + open]];
  }
  // Titers compared as they stand are differences of two readings, so they lie on the burette's own scale.
  const onScale = values.every((v) => Math.abs(v / resolutionMl - Math.round(v / resolutionMl)) < 1e-6);
  const step = unit === "mL" && onScale ? resolutionMl : 1 / 10 ** decimals;
  const size = set.members.length;
  return decidingWindows(values, concordance, missing === 1 ? Math.max(needed, size + 1, 2) : size + 1, step);
}

/** Holds the eligible trials against the house's rule. `trials` carry their compared values. */
export function judgeAgreement(
  trials: readonly TrialEvaluation[],
  { unit, decimals, label }: Omit<ComparedValues, "values">,
  rules: HouseRules,
): AgreementView {
  const concordance = concordanceOf(rules.agreement);
  const needed = replicatesNeeded(rules.agreement);
  const replicates = trials.flatMap(({ eligible, compared, id }) =>
    eligible && compared !== null
      ? [{ id, value: concordance.rule === "identical" ? rounded(compared, decimals) : compared }]
      : [],
  );
  const set = bestConcordantSet(replicates, concordance);
  const size = set?.members.length ?? 0;
  const state = stateOf(set, replicates.length);
  const stands = state === "one" || state === "set";
  const closed = stands && size >= needed;
  const missing = closed || !set ? Math.max(0, needed - size) : Math.max(1, needed - size);
  const values = replicates.map(({ value }) => value);
  const scale = { unit, decimals, resolutionMl: Number(rules.burette.resolutionMl) };
  const range = stands && set ? set.high - set.low : Math.max(...values) - Math.min(...values);
  return {
    label,
    unit,
    decimals,
    rule: ruleWords(rules.agreement),
    needed,
    state,
    members: stands ? (set?.members ?? []) : [],
    tied: state === "set" && (set?.tied ?? false),
    rivals: state === "rivals" && set ? [set.members, ...set.rivals] : [],
    spread: set ? range : 0,
    windows: set ? windowsFor(set, values, concordance, { closed, needed, missing }, scale) : [],
    missing,
    closed,
    outlier: outlierAdvice(replicates, rules.outliers),
    noOutlierTest: noOutlierTest(replicates.length, rules.outliers),
  };
}

/** True where the flasks compared all hold the same amount, so that a titer needs no "per". */
export function sameAmounts(stage: CompiledTitration, trials: readonly TrialEvaluation[]): boolean {
  const { per } = stage.definition.agree;
  if (per === undefined) return true;
  const amounts = trials.flatMap(({ symbols }) => symbols.get(per)?.value ?? []);
  return amounts.every((amount) => Math.abs(amount - (amounts[0] ?? 0)) < 1e-12);
}
