import type { IndicatorError, PHRange } from "../equilibria";
import type { CurvePoint } from "./points";

/** The volume at which a curve passes a value first, by the straight line between two points; null where it never does. */
function passes(points: readonly CurvePoint[], value: number): number | null {
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    if ((a.value - value) * (b.value - value) > 0 || a.value === b.value) continue;
    return a.volume + ((b.volume - a.volume) * (value - a.value)) / (b.value - a.value);
  }
  return null;
}

/** Where an indicator changes on the axis of a curve, and where its end is taken. */
export interface RangeOnCurve extends PHRange {
  readonly seen: number;
}

/**
 * How an indicator would have shown an end of a curve that was taken: where the curve passes its range, and how far it is seen from
 * the end. Null where the curve does not pass all of it.
 */
export function indicatorOn(
  points: readonly CurvePoint[],
  endMl: number,
  { from, to, seen }: RangeOnCurve,
): IndicatorError | null {
  const [first, middle, last] = [from, seen, to].map((value) => passes(points, value));
  if (first == null || middle == null || last == null) return null;
  const errorMl = middle - endMl;
  return {
    beginsMl: Math.min(first, last),
    endsMl: Math.max(first, last),
    errorMl,
    relative: errorMl / endMl,
  };
}

/** An indicator with what it would have shown. */
export type RatedOnCurve<I> = IndicatorError & I;

/** Indicators by how near to an end of a curve they would have changed, the best first; those that the curve does not pass are left out. */
export const indicatorsOn = <I extends RangeOnCurve>(
  points: readonly CurvePoint[],
  endMl: number,
  indicators: readonly I[],
): RatedOnCurve<I>[] =>
  indicators
    .flatMap((indicator) => {
      const error = indicatorOn(points, endMl, indicator);
      return error ? [{ ...indicator, ...error }] : [];
    })
    .toSorted((a, b) => Math.abs(a.errorMl) - Math.abs(b.errorMl));
