import { toDecimals } from "../quantity";
import { type Reference, sameAmounts } from "./agreement";
import type { CompiledTitration } from "./compile";
import type { AcceptanceView, AgreementView, TrialEvaluation, Verdict } from "./evaluation";
import type { AgreementRule, HouseRules } from "./rules";
import { capitalized, counted, countWord, listed, trialWords } from "./words";

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
  if (members.length === 0) {
    // Results are what must agree, and none could be computed: an earlier stage still owes its own.
    const why = eligible.find((t) => t.problem !== null)?.problem ?? "No result could be computed";
    return {
      state: "collecting",
      reason: `${why}. ${rule}`,
      next: "Finish the earlier stage: then these trials are judged",
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
