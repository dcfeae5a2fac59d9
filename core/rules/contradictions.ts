import { boundsProblems } from "./texts";
import type { HouseRules } from "./schema";
import { replicatesNeeded } from "./rules";
import { msg, type Phrase } from "../text";

/** Two rules that cannot both be kept: what they are, and the field that should be looked at. */
export interface Contradiction {
  readonly field: string;
  readonly message: Phrase;
}

/** House rules that contradict each other; none for a consistent set. */
export function contradictions(rules: HouseRules): Contradiction[] {
  const { agreement, burette, outliers, average, agreementOf } = rules;
  const step = Number(burette.resolutionMl);
  const found: Contradiction[] = [];
  const unless = (holds: boolean, field: string, message: Phrase) => {
    if (!holds) found.push({ field, message });
  };
  if ("withinMl" in agreement) {
    unless(
      Number(agreement.withinMl) >= step - 1e-9,
      "withinMl",
      msg`Trials cannot agree within ${agreement.withinMl} mL while the burette is read in steps of ${burette.resolutionMl} mL`,
    );
  }
  unless(
    outliers === "none" || agreement.rule === "two-else-third" || replicatesNeeded(agreement) >= 3,
    "outliers",
    msg`A test for outliers says nothing about fewer than three trials: ask for three, or leave it out`,
  );
  unless(
    Number(burette.readingHalfWidthMl) === 0 || Number(burette.readingHalfWidthMl) >= step / 10 - 1e-9,
    "readingHalfWidthMl",
    msg`A scale in steps of ${burette.resolutionMl} mL cannot be read to ± ${burette.readingHalfWidthMl}: a tenth of a step at best`,
  );
  unless(
    !burette.readTwice || Number(burette.readTwiceWithinMl) >= step - 1e-9,
    "readTwiceWithinMl",
    msg`Two readings in steps of ${burette.resolutionMl} mL differ by nothing, or by more than ${burette.readTwiceWithinMl}`,
  );
  unless(
    !(average === "titers" && agreementOf === "results"),
    "average",
    msg`If results must agree, results are averaged: compare titers, or average results`,
  );
  return found;
}

/** All that keeps house rules from being taken: numbers that cannot be, then rules that contradict each other. */
export const ruleProblems = (rules: HouseRules): Contradiction[] => {
  const wrong = Object.entries(boundsProblems(rules)).map(([field, message]) => ({ field, message }));
  return wrong.length > 0 ? wrong : contradictions(rules);
};
