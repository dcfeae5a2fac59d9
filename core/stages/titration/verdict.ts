import type { Window } from "../../judgement";
import { toDecimals, withUnit } from "../../quantity";
import { type Reference, sameAmounts } from "./agreement";
import type { CompiledTitration } from "./compile";
import type { AcceptanceView, AgreementView, TrialEvaluation, Verdict } from "../shared/evaluation";
import type { AgreementRule, HouseRules } from "../../rules";
import { capitalized, counted, countWord, listed } from "../../text";

const trialsWord = (names: readonly string[]) =>
  `${names.length === 1 ? "Trial" : "Trials"} ${listed(names)}`;

/** How a set agrees, or fails to, in the terms of the rule. */
function spreadWords({ spread, unit, decimals }: AgreementView, per: string): string {
  return spread < 0.5 / 10 ** decimals
    ? `agree to the last digit${per}`
    : `lie within ${withUnit(toDecimals(spread, decimals), unit)}${per}`;
}

/** Why no set can be told: no two agree, or several sets speak against each other. */
function disagreementWords(
  { state, rivals, spread, unit, decimals }: AgreementView,
  eligible: readonly TrialEvaluation[],
  rule: AgreementRule,
  per: string,
): string {
  const far = `${withUnit(toDecimals(spread, decimals), unit)}${per}`;
  const named = (ids: readonly string[]) =>
    listed(eligible.filter((t) => ids.includes(t.id)).map((t) => t.name));
  if (state === "rivals") {
    const sets = rivals.map(named);
    return `Trials ${sets[0] ?? ""} agree, and so do trials ${listed(sets.slice(1))}: nothing tells yet which of them is right.`;
  }
  if (eligible.length === 2)
    return `Trials ${named(eligible.map((t) => t.id))} disagree: they are ${far} apart.`;
  const none = `No two of the ${countWord(eligible.length)} trials`;
  const apart = {
    identical: "read the same",
    "relative-spread": `have a range of at most ${"partsPerThousand" in rule ? rule.partsPerThousand : ""} ‰`,
    "within-of-mean": `lie within ±${"withinMl" in rule ? rule.withinMl : ""} mL of their mean`,
    "n-within": `lie within ${"withinMl" in rule ? rule.withinMl : ""} mL of each other`,
    "two-else-third": `lie within ${"withinMl" in rule ? rule.withinMl : ""} mL of each other`,
  }[rule.rule];
  return `${none} ${apart}${per}; they spread over ${far}.`;
}

function outlierWords({ outlier, noOutlierTest }: AgreementView, trials: readonly TrialEvaluation[]): string {
  if (noOutlierTest) return ` ${noOutlierTest}.`;
  if (!outlier?.exceeds) return "";
  const suspect = trials.find((t) => t.id === outlier.suspect)?.words ?? "";
  const [statistic, critical] = [outlier.statistic, outlier.critical].map((x) => toDecimals(x, 3));
  return ` ${outlier.test} would call ${suspect} an outlier (${statistic} against ${critical}); it stays in until someone strikes it out.`;
}

/** Windows in words: "between 19.90 and 20.10 mL, or at 21.20 mL". */
export function windowWords(windows: readonly Window[], decimals: number, unit: string): string {
  const each = windows.map(([low, high]) => {
    const [from, to] = [toDecimals(low, decimals), toDecimals(high, decimals)];
    return from === to ? `at ${withUnit(from, unit)}` : `between ${from} and ${withUnit(to, unit)}`;
  });
  return each.join(", or ");
}

/** What one more trial has to be, and what comes of it. */
function nextWords(
  { windows, missing, decimals, unit, state }: AgreementView,
  per: string,
  asResults: boolean,
) {
  const where = `${asResults ? "whose result is worth a titer " : ""}${windowWords(windows, decimals, unit)}${per}`;
  if (windows.length === 0) {
    return missing === 1
      ? "No single trial closes the set: make two more"
      : `${capitalized(countWord(missing))} more trials`;
  }
  const several = windows.length > 1 ? "," : "";
  if (missing === 1)
    return `One more trial ${where}${several} ${state === "rivals" ? "decides" : "closes the set"}`;
  return `${capitalized(countWord(missing))} more trials; the next agrees ${asResults ? "when its result is worth a titer " : ""}${windowWords(windows, decimals, unit)}${per}`;
}

export interface VerdictInput {
  readonly trials: readonly TrialEvaluation[];
  readonly agreement: AgreementView;
  readonly stage: CompiledTitration;
  readonly reference: Reference;
  readonly rules: HouseRules;
  readonly acceptance: AcceptanceView | null;
  readonly nextStageTitle: string | null;
}

/** Before any trial counts: why none does. */
function emptyVerdict({ trials, agreement: { needed, rule } }: VerdictInput): Verdict {
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

/** What was found: how the trials stand to each other, which are left out, and what a test for outliers says. */
function foundWords({ trials, agreement, rules }: VerdictInput, per: string): string {
  const { members } = agreement;
  const eligible = trials.filter((t) => t.eligible);
  const names = trials.filter((t) => members.includes(t.id)).map((t) => t.name);
  const left = eligible.filter((t) => !members.includes(t.id)).map((t) => t.name);
  const state = agreement.state === "none" ? "apart" : agreement.state;
  const found = {
    one: `${trialsWord(names)} stands alone.`,
    set: `${trialsWord(names)} ${spreadWords(agreement, per)}.`,
    apart: disagreementWords(agreement, eligible, rules.agreement, per),
    rivals: disagreementWords(agreement, eligible, rules.agreement, per),
  }[state];
  const others =
    state === "set" && left.length > 0
      ? ` ${trialsWord(left)} ${left.length === 1 ? "is" : "are"} left out.`
      : "";
  const ties = agreement.tied ? " Another set of as many is just as tight." : "";
  return `${found}${others}${ties}${outlierWords(agreement, trials)}`;
}

/** What a spread is of: "of titer" for results compared as titers, "per 0.50 g" where flasks are unlike. */
function perWords({ trials, agreement, stage, reference, rules }: VerdictInput) {
  const perTiter = stage.compares !== "result" && rules.agreementOf === "titers" && agreement.unit === "mL";
  const asResults = agreement.unit === "mL" && !perTiter;
  if (asResults) return { asResults, per: " of titer" };
  const scaled = reference.amount !== 1 && stage.definition.agree.per !== undefined;
  const unlike =
    perTiter &&
    scaled &&
    !sameAmounts(
      stage,
      trials.filter((t) => t.eligible),
    );
  return { asResults, per: unlike ? ` ${reference.label}` : "" };
}

/** The verdict in words: what was found, the rule it was held against, and what to do next. */
export function giveVerdict(input: VerdictInput): Verdict {
  const { trials, agreement, acceptance, nextStageTitle } = input;
  const { needed, state, members, closed, rule } = agreement;
  const eligible = trials.filter((t) => t.eligible);
  if (eligible.length === 0) return emptyVerdict(input);
  if (state === "none") {
    // Results are what must agree, and none could be computed: an earlier stage still owes its own.
    const why = eligible.find((t) => t.problem !== null)?.problem ?? "No result could be computed";
    return {
      state: "collecting",
      reason: `${why}. ${rule}`,
      next: "Finish the earlier stage: then these trials are judged",
    };
  }
  const { asResults, per } = perWords(input);
  const found = foundWords(input, per);
  const goOn = nextStageTitle ? `Go on: ${nextStageTitle}` : "The set is closed";
  if (acceptance?.against === "value" && acceptance.decision !== null) {
    const said = {
      accept: goOn,
      "titrate again": "Titrate the saved solution again",
      "make anew": "Make a new dilution",
    };
    return {
      state: acceptance.decision === "accept" ? "agreed" : "collecting",
      reason: `${acceptance.text} ${found}`,
      tellsAcceptance: true,
      next: said[acceptance.decision],
    };
  }
  if (closed) {
    return {
      state: "agreed",
      reason: `${needed === 1 && members.length === 1 ? "" : `${found} `}${rule}`,
      next: goOn,
    };
  }
  return {
    state: "collecting",
    reason: `${found} ${rule}`,
    next: nextWords(agreement, asResults ? "" : per, asResults),
  };
}
