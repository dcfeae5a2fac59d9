import { bestConcordantSet, joiningWindow, mean } from "../judgement";
import { inUnit, toDecimals, toSignificant } from "../quantity";
import type { CompiledStage } from "./compile";
import { perUnit } from "./evaluate-trial";
import type { AgreementView, TrialEvaluation, Verdict } from "./evaluation";
import { inputOf } from "./method";
import type { HouseRules } from "./rules";
import { capitalized, counted, countWord, listed } from "./words";

export interface Reference {
  /** Titers are compared as if every flask held this amount; 1 where they are compared as they stand. */
  readonly amount: number;
  readonly label: string;
}

/**
 * The amount that titers are scaled to: the flasks' own where all are alike, so that titers are compared as read; else
 * the mean of the flasks, rounded to two figures so that it stays put from trial to trial.
 */
export function referenceAmount(stage: CompiledStage, trials: readonly TrialEvaluation[]): Reference {
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
  if (alike && inputOf(stage.definition, per)?.is === "pipette") {
    return { amount: first, label: `per ${toDecimals(first, 2)} ${unit}` };
  }
  const rounded = toSignificant(mean(amounts), 2);
  return { amount: Number(rounded), label: `per ${rounded} ${unit}` };
}

/** Compares the eligible trials by the house's rule. `trials` carry their compared values already scaled to mL. */
export function judgeAgreement(
  trials: readonly TrialEvaluation[],
  reference: Reference,
  rules: HouseRules,
): AgreementView {
  const widthMl = Number(rules.agreement.withinMl);
  const needed = rules.agreement.replicates;
  const replicates = trials.flatMap(({ eligible, compared, id }) =>
    eligible && compared !== null ? [{ id, value: compared }] : [],
  );
  const set = bestConcordantSet(replicates, widthMl);
  return {
    label: reference.label === "" ? "titer, mL" : `titer, mL, ${reference.label}`,
    widthMl,
    needed,
    members: set?.members ?? [],
    spreadMl: set ? set.high - set.low : 0,
    tied: set?.tied ?? false,
    window: set ? joiningWindow(set, widthMl) : null,
    closed: (set?.members.length ?? 0) >= needed,
  };
}

const trialsWord = (names: readonly string[]) =>
  `${names.length === 1 ? "Trial" : "Trials"} ${listed(names)}`;

/** The verdict in words: what was found, the rule it was held against, and what to do next. */
export function giveVerdict(
  trials: readonly TrialEvaluation[],
  agreement: AgreementView,
  stage: CompiledStage,
  reference: Reference,
  rules: HouseRules,
  nextStageTitle: string | null,
): Verdict {
  const { needed, members, closed, window, spreadMl, tied } = agreement;
  const decimals = rules.burette.decimals;
  const width = rules.agreement.withinMl;
  const rule =
    needed === 1
      ? "House rule: one trial is enough."
      : `House rule: ${countWord(needed)} within ${width} mL of each other.`;
  const eligible = trials.filter((t) => t.eligible);
  const names = trials.filter((t) => members.includes(t.id)).map((t) => t.name);
  const left = eligible.filter((t) => !members.includes(t.id)).map((t) => t.name);
  const scaled = reference.amount !== 1 && stage.definition.agree.per !== undefined;
  const per = scaled && !sameAmounts(stage, eligible) ? ` ${reference.label}` : "";

  if (eligible.length === 0) {
    const rough = trials.some((t) => t.record.kind === "rough" && t.titerMl !== null);
    return {
      state: "empty",
      reason: `${rough ? "Only the rough trial is there, and it does not count." : "No trial counts yet."} ${rule}`,
      next: `${capitalized(counted(needed, "trial"))} to go`,
    };
  }
  const found =
    members.length === 1
      ? eligible.length === 1
        ? `${trialsWord(names)} stands alone.`
        : `No two of the ${countWord(eligible.length)} trials lie within ${width} mL of each other${per}.`
      : `${trialsWord(names)} lie within ${toDecimals(spreadMl, decimals)} mL${per}.`;
  const others =
    left.length > 0 && members.length > 1
      ? ` ${trialsWord(left)} ${left.length === 1 ? "is" : "are"} left out.`
      : "";
  const ties = tied && members.length > 1 ? " Another set of as many is just as tight." : "";
  if (closed) {
    return {
      state: "agreed",
      reason: `${needed === 1 && members.length === 1 ? "" : `${found}${others}${ties} `}${rule}`,
      next: nextStageTitle ? `Go on: ${nextStageTitle}` : "The set is closed",
    };
  }
  const missing = needed - members.length;
  const [low, high] = window ?? [0, 0];
  const between = `between ${toDecimals(low, decimals)} and ${toDecimals(high, decimals)} mL${per}`;
  return {
    state: "collecting",
    reason: `${found}${others}${ties} ${rule}`,
    next:
      missing === 1
        ? `One more trial ${between} closes the set`
        : `${capitalized(countWord(missing))} more trials; the next agrees ${between}`,
  };
}

/** True where the flasks compared all hold the same amount, so that a titer needs no "per". */
export function sameAmounts(stage: CompiledStage, trials: readonly TrialEvaluation[]): boolean {
  const { per } = stage.definition.agree;
  if (per === undefined) return true;
  const amounts = trials.flatMap(({ symbols }) => symbols.get(per)?.value ?? []);
  return amounts.every((amount) => Math.abs(amount - (amounts[0] ?? 0)) < 1e-12);
}
