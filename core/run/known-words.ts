import { plusMinusOf, type PlusMinusStyle } from "../judgement";
import { withUnit } from "../quantity";
import type { Phrase } from "../text";
import type { UsedSolution } from "./run-record";

/**
 * What was known of a bottle when it was used, with its ± and unit: a standard uncertainty in the style asked for, a half width as it was
 * stated; alone where it has none.
 */
export function knownWords({ value, plusMinus, shape, unit }: UsedSolution, style: PlusMinusStyle): Phrase {
  const half = shape === "normal" ? plusMinusOf(Number(plusMinus), Infinity, style) : Number(plusMinus);
  return withUnit(half === 0 ? value : `${value} ± ${Number(half.toPrecision(2))}`, unit);
}
