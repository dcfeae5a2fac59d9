import { type Significant, scaled, significantFromText, significantSum } from "../quantity";
import type { ObservationKind } from "../record";
import type { ReadText } from "./kind";

/* Significant figures of what was typed, in the unit of the value. */

/** Those of one reading; of what is presumed where nothing was typed. */
export const figuresOf = (
  text: ReadText,
  kind: ObservationKind,
  presumed: string | undefined,
  size = 1,
): Significant | null => {
  const typed = text(kind) ?? presumed;
  return typed === undefined ? null : scaled(significantFromText(typed), size);
};

/** A difference of two readings ends at the poorer place. */
export function figuresOfDifference(
  text: ReadText,
  [first, second]: readonly [ObservationKind, ObservationKind],
  value: number,
): Significant | null {
  const [a, b] = [text(first), text(second)];
  if (a === null || b === null) return null;
  return { value, place: significantSum(significantFromText(a), significantFromText(b), -1).place };
}
