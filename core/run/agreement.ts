import { bestConcordantSet, type Concordance, joiningWindow, mean, outlierAdvice } from "../judgement";
import { inUnit, toDecimals, toSignificant } from "../quantity";
import type { CompiledTitration } from "./compile";
import { perUnit } from "./evaluate-trial";
import type { AcceptanceView, AgreementView, TrialEvaluation, Verdict } from "./evaluation";
import { inputOf } from "./method";
import { type AgreementRule, type HouseRules, replicatesNeeded } from "./rules";
import { capitalized, counted, countWord, listed, trialWords, uncapitalized } from "./words";

export interface Reference {
  /** Titers are compared as if every flask held this amount; 1 where they are compared as they stand. */
  readonly amount: number;
  readonly label: string;
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
    return { amount: first, label: `per ${toDecimals(first, 2)} ${unit}` };
  }
  const rounded = toSignificant(mean(amounts), 2);
  return { amount: Number(rounded), label: `per ${rounded} ${unit}` };
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
export function ruleWords(rule: AgreementRule): string {
  const needed = replicatesNeeded(rule);
  if (needed === 1) return "House rule: one trial is enough.";
  const n = countWord(needed);
  switch (rule.rule) {
    case "n-within":
      return `House rule: ${n} within ${rule.withinMl} mL of each other.`;
    case "within-of-mean":
      return `House rule: ${n} within ±${rule.withinMl} mL of their mean.`;
    case "identical":
      return `House rule: ${n} that read the same.`;
    case "relative-spread":
      return `House rule: ${n} with a range of at most ${rule.partsPerThousand} ‰ of their mean.`;
    case "two-else-third":
      return `House rule: two within ${rule.withinMl} mL, else a third.`;
  }
}

/** Compared values rounded as readings are, so that "the same" means the same digits. */
const rounded = (value: number, decimals: number) => Math.round(value * 10 ** decimals) / 10 ** decimals;

interface ComparedValues {
  readonly values: ReadonlyMap<string, number>;
  readonly unit: string;
  readonly decimals: number;
  readonly label: string;
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
  const { decimals } = rules.burette;
  if (!byResult) {
    const values = trials.flatMap(({ id, compared }) =>
      compared === null ? [] : [[id, compared * reference.amount] as const],
    );
    const label = reference.label === "" ? "titer, mL" : `titer, mL, ${reference.label}`;
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
    const shownUnit = unit === "1" ? "" : `, ${unit}`;
    return { values: new Map(values), unit, decimals: places, label: `${uncapitalized(name)}${shownUnit}` };
  }
  const counted = done.some((t) => t.eligible) ? done.filter((t) => t.eligible) : done;
  const center = mean(counted.map(({ result }) => result.value));
  const titer = mean(counted.map(({ titerMl }) => titerMl));
  const values = done.flatMap(({ id, result }) => {
    // The burette's own cause tells what one mL of titer changes in this flask's result.
    const perMl = result.sensitivities.get(`burette:${stage.definition.key}`)?.by ?? 0;
    return perMl === 0 ? [] : [[id, titer + (result.value - center) / perMl] as const];
  });
  return { values: new Map(values), unit: "mL", decimals, label: "result, as mL of titer" };
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
  const window = set ? joiningWindow(set, concordance) : null;
  return {
    label,
    unit,
    decimals,
    rule: ruleWords(rules.agreement),
    needed,
    members: set?.members ?? [],
    spread: set ? set.high - set.low : 0,
    tied: set?.tied ?? false,
    // Identical readings leave a window of no width, open by half a step of the scale.
    window:
      window && concordance.rule === "identical"
        ? [window[0] - 0.5 / 10 ** decimals, window[1] + 0.5 / 10 ** decimals]
        : window,
    closed: (set?.members.length ?? 0) >= needed,
    outlier: outlierAdvice(replicates, rules.outliers),
  };
}

const trialsWord = (names: readonly string[]) =>
  `${names.length === 1 ? "Trial" : "Trials"} ${listed(names)}`;

/** How a set agrees, or fails to, in the terms of the rule. */
function spreadWords({ spread, unit, decimals }: AgreementView, per: string): string {
  const shown = unit === "1" ? "" : ` ${unit}`;
  return spread < 0.5 / 10 ** decimals
    ? `agree to the last digit${per}`
    : `lie within ${toDecimals(spread, decimals)}${shown}${per}`;
}

function apartWords(count: number, rule: AgreementRule, per: string): string {
  const none = `No two of the ${countWord(count)} trials`;
  switch (rule.rule) {
    case "identical":
      return `${none} read the same${per}.`;
    case "relative-spread":
      return `${none} have a range of at most ${rule.partsPerThousand} ‰${per}.`;
    case "within-of-mean":
      return `${none} lie within ±${rule.withinMl} mL of their mean${per}.`;
    default:
      return `${none} lie within ${rule.withinMl} mL of each other${per}.`;
  }
}

function outlierWords({ outlier }: AgreementView, trials: readonly TrialEvaluation[]): string {
  if (!outlier?.exceeds) return "";
  const name = trials.find((t) => t.id === outlier.suspect)?.name ?? "";
  const [statistic, critical] = [outlier.statistic, outlier.critical].map((x) => toDecimals(x, 3));
  return ` ${outlier.test} would call ${trialWords(name)} an outlier (${statistic} against ${critical}); it stays in until someone strikes it out.`;
}

/** The verdict in words: what was found, the rule it was held against, and what to do next. */
export function giveVerdict(
  trials: readonly TrialEvaluation[],
  agreement: AgreementView,
  stage: CompiledTitration,
  reference: Reference,
  rules: HouseRules,
  acceptance: AcceptanceView | null,
  nextStageTitle: string | null,
): Verdict {
  const { needed, members, closed, window, tied, rule, decimals, unit } = agreement;
  const eligible = trials.filter((t) => t.eligible);
  const names = trials.filter((t) => members.includes(t.id)).map((t) => t.name);
  const left = eligible.filter((t) => !members.includes(t.id)).map((t) => t.name);
  const scaled = reference.amount !== 1 && stage.definition.agree.per !== undefined;
  const perTiter = stage.compares !== "result" && rules.agreementOf === "titers" && unit === "mL";
  const asResults = unit === "mL" && !perTiter;
  const per = asResults
    ? " of titer"
    : perTiter && scaled && !sameAmounts(stage, eligible)
      ? ` ${reference.label}`
      : "";
  const goOn = nextStageTitle ? `Go on: ${nextStageTitle}` : "The set is closed";

  if (eligible.length === 0) {
    const broken = trials.find((t) => t.problem !== null && !t.record.struck);
    const rough = trials.some((t) => t.record.kind === "rough" && t.titerMl !== null);
    const struck = trials.length > 0 && trials.every((t) => t.record.struck);
    const none = struck
      ? "All trials are struck out."
      : rough
        ? "Only the rough trial is there, and it does not count."
        : "No trial counts yet.";
    return {
      state: "empty",
      reason: `${broken?.problem ? `${broken.problem}.` : none} ${rule}`,
      next: `${capitalized(counted(needed, "trial"))} to go`,
    };
  }
  const found =
    members.length === 1
      ? eligible.length === 1
        ? `${trialsWord(names)} stands alone.`
        : apartWords(eligible.length, rules.agreement, per)
      : `${trialsWord(names)} ${spreadWords(agreement, per)}.`;
  const others =
    left.length > 0 && members.length > 1
      ? ` ${trialsWord(left)} ${left.length === 1 ? "is" : "are"} left out.`
      : "";
  const ties = tied && members.length > 1 ? " Another set of as many is just as tight." : "";
  const advice = outlierWords(agreement, trials);
  if (acceptance?.against === "value" && acceptance.decision !== null) {
    const said = {
      accept: goOn,
      "titrate again": "Titrate the saved solution again",
      "make anew": "Make a new dilution",
    };
    return {
      state: acceptance.decision === "accept" ? "agreed" : "collecting",
      reason: `${acceptance.text}${advice}`,
      next: said[acceptance.decision],
    };
  }
  if (closed) {
    return {
      state: "agreed",
      reason: `${needed === 1 && members.length === 1 ? "" : `${found}${others}${ties}${advice} `}${rule}`,
      next: goOn,
    };
  }
  const missing = needed - members.length;
  const shown = unit === "1" ? "" : ` ${unit}`;
  const [low, high] = window ?? [0, 0];
  const joined = `${toDecimals(low, decimals)} to ${toDecimals(high, decimals)}${shown}${per}`;
  const between = asResults
    ? `when its result is worth ${joined}`
    : `between ${toDecimals(low, decimals)} and ${toDecimals(high, decimals)}${shown}${per}`;
  const where =
    rules.agreement.rule === "identical"
      ? `at ${toDecimals((low + high) / 2, decimals)}${shown}${per}`
      : between;
  return {
    state: "collecting",
    reason: `${found}${others}${ties}${advice} ${rule}`,
    next:
      missing === 1
        ? `One more trial ${where} closes the set`
        : `${capitalized(countWord(missing))} more trials; the next agrees ${where}`,
  };
}

/** True where the flasks compared all hold the same amount, so that a titer needs no "per". */
export function sameAmounts(stage: CompiledTitration, trials: readonly TrialEvaluation[]): boolean {
  const { per } = stage.definition.agree;
  if (per === undefined) return true;
  const amounts = trials.flatMap(({ symbols }) => symbols.get(per)?.value ?? []);
  return amounts.every((amount) => Math.abs(amount - (amounts[0] ?? 0)) < 1e-12);
}
