import { plusMinus, type PlusMinusStyle } from "../judgement";
import { inUnit, type Quantity, roundWithUncertainty, unitOf } from "../quantity";
import type { Shown } from "./evaluation";

/** What the number after ± is, in words. */
export const plusMinusWords: Record<PlusMinusStyle, string> = {
  k2: "k = 2",
  u: "standard uncertainty",
  i95: "95 % interval",
};

/** A quantity in a unit with its ±, rounded once and together. */
export function showQuantity(q: Quantity, unit: string, style: PlusMinusStyle): Shown {
  const half = plusMinus(q, style) / unitOf(unit).factor;
  const { value, uncertainty } = roundWithUncertainty(inUnit(q, unit), half);
  const unitText = unit === "1" ? "" : ` ${unit}`;
  return { value, plusMinus: uncertainty, unit, text: `${value} ± ${uncertainty}${unitText}` };
}
