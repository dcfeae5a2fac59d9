import { type LeastSquares, leastSquares } from "../calibration";
import type { CurvePoint } from "./points";

/* Conductance and absorbance: two straight branches that meet at the equivalence point. */

/** What was read as if nothing had been diluted by the titrant: times (V₀ + V) / V₀. */
export const undiluted = (points: readonly CurvePoint[], flaskMl: number): CurvePoint[] =>
  points.map(({ volume, value }) => ({ volume, value: (value * (flaskMl + volume)) / flaskMl }));

export interface Crossing {
  readonly volume: number;
  /** Standard uncertainty, mL, from the scatter of the points about their lines. */
  readonly u: number;
  readonly before: readonly [intercept: number, slope: number];
  readonly after: readonly [intercept: number, slope: number];
}

const line = (points: readonly CurvePoint[]): LeastSquares | null =>
  leastSquares(
    points.map(({ volume }) => [1, volume]),
    points.map(({ value }) => value),
    points.map(() => 1),
  );

/**
 * Where the lines through two branches meet. What is near the crossing is rounded and left out by whoever chooses the branches. Null where
 * a branch determines no line, or both are parallel.
 */
export function crossing(before: readonly CurvePoint[], after: readonly CurvePoint[]): Crossing | null {
  const [first, second] = [line(before), line(after)];
  if (!first || !second) return null;
  const [a1 = NaN, b1 = NaN] = first.coefficients;
  const [a2 = NaN, b2 = NaN] = second.coefficients;
  const apart = b1 - b2;
  if (!(Math.abs(apart) > 1e-12 * Math.max(Math.abs(b1), Math.abs(b2)))) return null;
  const volume = (a2 - a1) / apart;
  const part = (solved: LeastSquares, count: number) => {
    const s = count > 2 ? Math.sqrt(solved.residualSum / (count - 2)) : 0;
    return s * Math.hypot(...solved.independent([1 / apart, volume / apart]));
  };
  return {
    volume,
    u: Math.hypot(part(first, before.length), part(second, after.length)),
    before: [a1, b1],
    after: [a2, b2],
  };
}
