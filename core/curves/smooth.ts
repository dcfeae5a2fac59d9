import { leastSquares } from "../calibration";
import type { CurvePoint, Slope } from "./points";

/** So many points on either side are looked at together. Common practice, no source. */
const beside = 3;

/**
 * The first derivative through noise: at each point the slope of the parabola that fits it and its neighbors best, three on either side, whatever
 * their distances (Savitzky and Golay 1964, for uneven steps, from memory). Points are in order; where there are fewer than four neighbors there is none.
 */
export function smoothedDerivative(points: readonly CurvePoint[]): Slope[] {
  return points.flatMap(({ volume }, i): Slope[] => {
    const near = points.slice(Math.max(0, i - beside), i + beside + 1);
    if (near.length < 5) return [];
    const solved = leastSquares(
      near.map((p) => [1, p.volume - volume, (p.volume - volume) ** 2]),
      near.map((p) => p.value),
      near.map(() => 1),
    );
    const slope = solved?.coefficients[1];
    return slope === undefined ? [] : [{ volume, slope }];
  });
}
