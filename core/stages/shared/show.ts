import { plusMinus } from "../../judgement";
import {
  inUnit,
  printedUnit,
  type Quantity,
  roundWithUncertainty,
  scaled,
  showSignificant,
  standardUncertainty,
  type Significant,
  toDecimals,
  toSignificant,
  unitOf,
  withUnit,
} from "../../quantity";
import type { Shown } from "./evaluation";
import type { FurtherResultDefinition } from "../../method";
import { isNearWhole } from "./plausibility";
import type { HouseRules } from "../../rules";
import { msg, type Phrase } from "../../text";

/** What the number after ± is, in words. */
export const plusMinusWords: Record<HouseRules["plusMinus"], Phrase> = {
  k2: "k = 2",
  u: msg`standard uncertainty`,
  i95: msg`95 % interval`,
};

/**
 * A quantity in a unit with its ±, rounded once: both to the uncertainty; or, where the house counts significant figures and they are
 * known, the value to those and the ± to the same place.
 */
export function showQuantity(
  q: Quantity,
  { unit, nearestWhole }: Pick<FurtherResultDefinition, "unit" | "nearestWhole">,
  rules: HouseRules,
  significant?: Significant,
): Shown {
  const value = inUnit(q, unit);
  const half = plusMinus(q, rules.plusMinus) / unitOf(unit).factor;
  const rounded = roundWithUncertainty(value, half);
  const shown =
    rules.digits === "significant-figures" && significant && Number.isFinite(significant.place)
      ? bySignificance(scaled({ ...significant, value: q.value }, 1 / unitOf(unit).factor), half)
      : { value: rounded.value, plusMinus: rounded.uncertainty };
  // What was chosen and not measured, as a wavelength, has no ± to show.
  if (half === 0 && standardUncertainty(q) === 0 && nearestWhole === undefined) {
    const exact = String(Number(value.toPrecision(9)));
    return { value: exact, plusMinus: "0", unit: printedUnit(unit), text: withUnit(exact, unit) };
  }
  return {
    ...shown,
    unit: printedUnit(unit),
    text: withUnit(`${shown.value} ± ${shown.plusMinus}`, unit),
    ...(nearestWhole && isNearWhole(q) ? { nearestWhole: toDecimals(value, 0) } : {}),
  };
}

function bySignificance(value: Significant, half: number): { value: string; plusMinus: string } {
  const atPlace = toDecimals(half, -value.place);
  // A ± below the last significant place would vanish: it keeps one figure of its own.
  return {
    value: showSignificant(value),
    plusMinus: half > 0 && Number(atPlace) === 0 ? toSignificant(half, 1) : atPlace,
  };
}
