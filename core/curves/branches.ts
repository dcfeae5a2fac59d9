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

/** So near to the crossing, as a part of the way to it, the branches are rounded. Common practice, no source. */
const rounded = 0.1;

/** One line with noise on it seems to bend somewhere: a crossing counts where its place is known to this part of itself. Common practice, no source. */
const leastKnown = 0.03;

/** Points that a branch needs. */
const leastOfBranch = 3;

/**
 * The crossing of a curve that is two straight branches: split where the two lines fit best, then without the points near the crossing.
 * Points are in order and corrected for dilution. Null while either branch has too few of them.
 */
export function branchesOf(points: readonly CurvePoint[]): Crossing | null {
  const splits = Array.from(
    { length: Math.max(0, points.length - 2 * leastOfBranch + 1) },
    (_, i) => i + leastOfBranch,
  );
  const sums = splits.map((at) => {
    const [first, second] = [line(points.slice(0, at)), line(points.slice(at))];
    return first && second ? first.residualSum + second.residualSum : Infinity;
  });
  const at = splits[sums.indexOf(Math.min(...sums))];
  if (at === undefined) return null;
  const rough = crossing(points.slice(0, at), points.slice(at));
  if (!rough || rough.volume <= points[0]!.volume || rough.volume >= points.at(-1)!.volume) return null;
  const near = rounded * rough.volume;
  const before = points.filter(({ volume }) => volume < rough.volume - near);
  const after = points.filter(({ volume }) => volume > rough.volume + near);
  if (before.length < leastOfBranch || after.length < leastOfBranch) return null;
  const found = crossing(before, after);
  if (!found || found.volume <= 0 || found.volume >= points.at(-1)!.volume) return null;
  return found.u <= leastKnown * found.volume ? found : null;
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
