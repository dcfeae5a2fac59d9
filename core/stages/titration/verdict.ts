import type { Window } from "../../judgement";
import { toDecimals, withUnit } from "../../quantity";
import { type Reference, sameAmounts } from "./agreement";
import type { CompiledTitration } from "./compile";
import type { AcceptanceView, AgreementView, TrialEvaluation, Verdict } from "../shared/evaluation";
import type { AgreementRule, HouseRules } from "../../rules";
import { capitalized, counted, countWord, listed, msg, type Phrase } from "../../text";

const trialsWord = (names: readonly Phrase[]) =>
  names.length === 1 ? msg`Trial ${listed(names)}` : msg`Trials ${listed(names)}`;

/** How a set agrees, or fails to, in the terms of the rule. */
function spreadWords({ spread, unit, decimals }: AgreementView, per: Phrase): Phrase {
  return spread < 0.5 / 10 ** decimals
    ? msg`agree to the last digit${per}`
    : msg`lie within ${withUnit(toDecimals(spread, decimals), unit)}${per}`;
}

/** Why no set can be told: no two agree, or several sets speak against each other. */
function disagreementWords(
  { state, rivals, spread, unit, decimals }: AgreementView,
  eligible: readonly TrialEvaluation[],
  rule: AgreementRule,
  per: Phrase,
): Phrase {
  const far = msg`${withUnit(toDecimals(spread, decimals), unit)}${per}`;
  const named = (ids: readonly string[]) =>
    listed(eligible.filter((t) => ids.includes(t.id)).map((t) => t.name));
  if (state === "rivals") {
    const sets = rivals.map(named);
    return msg`Trials ${sets[0] ?? ""} agree, and so do trials ${listed(sets.slice(1))}: it is not clear yet which are right.`;
  }
  if (eligible.length === 2)
    return msg`Trials ${named(eligible.map((t) => t.id))} disagree: they are ${far} apart.`;
  const none = msg`No two of the ${countWord(eligible.length)} trials`;
  const apart = {
    identical: msg`read the same`,
    "relative-spread": msg`have a range of at most ${"partsPerThousand" in rule ? rule.partsPerThousand : ""} ‰`,
    "within-of-mean": msg`lie within ±${"withinMl" in rule ? rule.withinMl : ""} mL of their mean`,
    "n-within": msg`lie within ${"withinMl" in rule ? rule.withinMl : ""} mL of each other`,
    "two-else-third": msg`lie within ${"withinMl" in rule ? rule.withinMl : ""} mL of each other`,
  }[rule.rule];
  return msg`${none} ${apart}${per}; they spread over ${far}.`;
}

function outlierWords({ outlier, noOutlierTest }: AgreementView, trials: readonly TrialEvaluation[]): Phrase {
  if (noOutlierTest) return msg` ${noOutlierTest}.`;
  if (!outlier?.exceeds) return "";
  const suspect = trials.find((t) => t.id === outlier.suspect)?.words ?? "";
  const [statistic, critical] = [toDecimals(outlier.statistic, 3), toDecimals(outlier.critical, 3)];
  return msg` ${outlier.test} flags ${suspect} as an outlier (${statistic}, critical value ${critical}); it counts until someone strikes it out.`;
}

/** Windows in words: "between 19.90 and 20.10 mL, or at 21.20 mL". */
export function windowWords(windows: readonly Window[], decimals: number, unit: string): Phrase {
  const each = windows.map(([low, high]): Phrase => {
    const [from, to] = [toDecimals(low, decimals), toDecimals(high, decimals)];
    return from === to ? msg`at ${withUnit(from, unit)}` : msg`between ${from} and ${withUnit(to, unit)}`;
  });
  return each.length === 0 ? "" : each.reduce((all, one) => msg`${all}, or ${one}`);
}

/** What one more trial has to be, and what comes of it. */
function nextWords(
  { windows, missing, decimals, unit, state }: AgreementView,
  per: Phrase,
  asResults: boolean,
) {
  const where = msg`${asResults ? msg`whose result corresponds to a titer ` : ""}${windowWords(windows, decimals, unit)}${per}`;
  if (windows.length === 0) {
    return missing === 1
      ? msg`No single trial closes the set: make two more`
      : msg`${capitalized(countWord(missing))} more trials`;
  }
  const several = windows.length > 1 ? "," : "";
  if (missing === 1)
    return msg`One more trial ${where}${several} ${state === "rivals" ? msg`decides` : msg`closes the set`}`;
  return msg`${capitalized(countWord(missing))} more trials; the next agrees ${asResults ? msg`when its result corresponds to a titer ` : ""}${windowWords(windows, decimals, unit)}${per}`;
}

export interface VerdictInput {
  readonly trials: readonly TrialEvaluation[];
  readonly agreement: AgreementView;
  readonly stage: CompiledTitration;
  readonly reference: Reference;
  readonly rules: HouseRules;
  readonly acceptance: AcceptanceView | null;
  readonly nextStageTitle: Phrase | null;
}

/** Before any trial counts: why none does. */
function emptyVerdict({ trials, agreement: { needed, rule } }: VerdictInput): Verdict {
  const broken = trials.find((t) => t.problem !== null && !t.record.struck);
  const rough = trials.some((t) => t.record.kind === "rough" && t.titerMl !== null);
  const struck = trials.length > 0 && trials.every((t) => t.record.struck);
  const none = struck
    ? msg`All trials are struck out.`
    : rough
      ? msg`Only the rough trial is there, and it does not count.`
      : msg`No trial counts yet.`;
  return {
    state: "empty",
    reason: msg`${broken?.problem ? msg`${broken.problem}.` : none} ${rule}`,
    next: msg`${capitalized(counted(needed, "trial"))} to go`,
  };
}

/** What was found: how the trials stand to each other, which are left out, and what a test for outliers says. */
function foundWords({ trials, agreement, rules }: VerdictInput, per: Phrase): Phrase {
  const { members } = agreement;
  const eligible = trials.filter((t) => t.eligible);
  const names = trials.filter((t) => members.includes(t.id)).map((t) => t.name);
  const left = eligible.filter((t) => !members.includes(t.id)).map((t) => t.name);
  const state = agreement.state === "none" ? "apart" : agreement.state;
  const found = {
    one: msg`Only trial ${listed(names)} so far.`,
    set: msg`${trialsWord(names)} ${spreadWords(agreement, per)}.`,
    apart: disagreementWords(agreement, eligible, rules.agreement, per),
    rivals: disagreementWords(agreement, eligible, rules.agreement, per),
  }[state];
  const others =
    state === "set" && left.length > 0
      ? left.length === 1
        ? msg` ${trialsWord(left)} is left out.`
        : msg` ${trialsWord(left)} are left out.`
      : "";
  const ties = agreement.tied ? msg` Another set of the same size agrees just as well.` : "";
  return msg`${found}${others}${ties}${outlierWords(agreement, trials)}`;
}

/** What a spread is of: "of titer" for results compared as titers, "per 0.50 g" where flasks are unlike. */
function perWords({ trials, agreement, stage, reference, rules }: VerdictInput) {
  const perTiter = stage.compares !== "result" && rules.agreementOf === "titers" && agreement.unit === "mL";
  const asResults = agreement.unit === "mL" && !perTiter;
  if (asResults) return { asResults, per: msg` of titer` };
  const scaled = reference.amount !== 1 && stage.definition.agree.per !== undefined;
  const unlike =
    perTiter &&
    scaled &&
    !sameAmounts(
      stage,
      trials.filter((t) => t.eligible),
    );
  return { asResults, per: unlike ? msg` ${reference.label}` : "" };
}

/** The verdict in words: what was found, the rule it was held against, and what to do next. */
export function giveVerdict(input: VerdictInput): Verdict {
  const { trials, agreement, acceptance, nextStageTitle } = input;
  const { needed, state, members, closed, rule } = agreement;
  const eligible = trials.filter((t) => t.eligible);
  if (eligible.length === 0) return emptyVerdict(input);
  if (state === "none") {
    // Results are what must agree, and none could be computed: an earlier stage still owes its own.
    const why = eligible.find((t) => t.problem !== null)?.problem ?? msg`No result could be calculated`;
    return {
      state: "collecting",
      reason: msg`${why}. ${rule}`,
      next: msg`Finish the earlier stage: then these trials are judged`,
    };
  }
  const { asResults, per } = perWords(input);
  const found = foundWords(input, per);
  const goOn = nextStageTitle ? msg`Go on: ${nextStageTitle}` : msg`The set is closed`;
  if (acceptance?.against === "value" && acceptance.decision !== null) {
    const reasons = {
      accept: goOn,
      "titrate again": msg`Titrate the saved solution again`,
      "make again": msg`Make a new dilution`,
    };
    return {
      state: acceptance.decision === "accept" ? "agreed" : "collecting",
      reason: msg`${acceptance.text} ${found}`,
      tellsAcceptance: true,
      next: reasons[acceptance.decision],
    };
  }
  if (closed) {
    return {
      state: "agreed",
      reason: needed === 1 && members.length === 1 ? rule : msg`${found} ${rule}`,
      next: goOn,
    };
  }
  return {
    state: "collecting",
    reason: msg`${found} ${rule}`,
    next: nextWords(agreement, asResults ? "" : per, asResults),
  };
}
