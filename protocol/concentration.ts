import { roundWithUncertainty } from "~/core/quantity";
import type { AssignmentView, How } from "./shelf";

export interface ConcentrationText {
  readonly value: string;
  readonly plusMinus: string;
  readonly unit: string;
  /** What the ± is, in words; empty where there is none. */
  readonly meaning: string;
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
      meaning: half > 0 ? "as stated" : "",
    };
  const { value, uncertainty } = roundWithUncertainty(Number(a.value), 2 * half);
  return { value, plusMinus: uncertainty, unit: a.unit, meaning: "k = 2" };
}

export function concentrationText(a: Parameters<typeof concentrationOf>[0]): string {
  const { value, plusMinus, unit } = concentrationOf(a);
  return `${value}${plusMinus ? ` ± ${plusMinus}` : ""} ${unit}`;
}

/** How a concentration is known, in words. */
export const howWords: Record<How, string> = {
  weighed: "weighed",
  diluted: "diluted",
  standardized: "standardized",
  certificate: "by its certificate",
  nominal: "nominal, not measured",
};
