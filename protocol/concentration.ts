import { roundWithUncertainty, withUnit } from "~/core/quantity";
import type { AssignmentView, How } from "./shelf";
import { msg, type Phrase } from "~/core/text";

export interface ConcentrationText {
  readonly value: string;
  readonly plusMinus: string;
  readonly unit: string;
  /** What the ± is; empty where there is none. */
  readonly meaning: "stated" | "k = 2" | "";
}

/** A bottle's concentration as its label says it: rounded once, by its ±. */
export function concentrationOf(
  a: Pick<AssignmentView, "value" | "plusMinus" | "shape" | "unit">,
): ConcentrationText {
  const half = Number(a.plusMinus);
  if (a.shape === "rectangular")
    return {
      value: a.value,
      plusMinus: half > 0 ? a.plusMinus : "",
      unit: a.unit,
      meaning: half > 0 ? "stated" : "",
    };
  const { value, uncertainty } = roundWithUncertainty(Number(a.value), 2 * half);
  return { value, plusMinus: uncertainty, unit: a.unit, meaning: "k = 2" };
}

export function concentrationText(a: Parameters<typeof concentrationOf>[0]): Phrase {
  const { value, plusMinus, unit } = concentrationOf(a);
  return withUnit(plusMinus ? `${value} ± ${plusMinus}` : value, unit);
}

/** How a concentration is known, in words. */
export const howWords: Record<How, Phrase> = {
  weighed: msg`weighed`,
  diluted: msg`diluted`,
  standardized: msg`standardized`,
  certificate: msg`by its certificate`,
  nominal: msg`nominal, not measured`,
};
