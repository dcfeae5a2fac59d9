import { risingRoot } from "./root";

/* Where an indicator changes its color along a titration, by what it responds to: pH, a free metal, a potential, a trace of the titrant. */

/** An indicator of acids and bases: from which pH to which it changes its color. */
export interface PHRange {
  readonly from: number;
  readonly to: number;
}

/** Where an indicator changes along a titration, and how far that is from the equivalence point. */
export interface IndicatorError {
  /** Titrant at the beginning and at the end of the change, in the order in which they are reached, mL. */
  readonly beginsMl: number;
  readonly endsMl: number;
  /** Error where the change is seen, mL; positive where it comes late. */
  readonly errorMl: number;
  /** The same as a part of the equivalence volume. */
  readonly relative: number;
}

/** How far an indicator has changed after an addition, mL: -1 where it begins, 0 in the middle, 1 where it ends, or the other way round. */
export type ChangeAlong = (addedMl: number) => number;

/**
 * How an indicator shows the equivalence point of a titration, looked for up to three times as far; that or zero where it never changes.
 *
 * @param seenAt How far it has changed when the eye takes it: 0 in the middle, -1 or 1 where one color begins or ends.
 */
export function indicatorError(change: ChangeAlong, equivalenceMl: number, seenAt = 0): IndicatorError {
  const mostMl = 3 * equivalenceMl;
  const rises = change(mostMl) > change(0);
  const at = (level: number) =>
    risingRoot((ml) => (rises ? change(ml) - level : level - change(ml)), 0, mostMl, 1e-9);
  const [beginsMl = NaN, endsMl = NaN] = [at(-1), at(1)].toSorted((a, b) => a - b);
  const errorMl = at(seenAt) - equivalenceMl;
  return { beginsMl, endsMl, errorMl, relative: errorMl / equivalenceMl };
}
