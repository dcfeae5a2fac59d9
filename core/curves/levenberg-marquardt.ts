import { type LeastSquares, leastSquares } from "../calibration";

export interface NonlinearFit {
  readonly parameters: readonly number[];
  /** Residuals, each over its standard deviation. */
  readonly residuals: readonly number[];
  readonly chiSquare: number;
  /** Of small changes of the parameters about where they are: their covariance. */
  readonly linear: LeastSquares;
  readonly iterations: number;
}

const sumOfSquares = (values: readonly number[]): number => values.reduce((sum, r) => sum + r * r, 0);

/** How the residuals change with each parameter: a row for each residual. */
function jacobianOf(
  residuals: (parameters: readonly number[]) => number[],
  at: readonly number[],
  there: readonly number[],
) {
  const columns = at.map((value, j) => {
    const step = 1e-6 * Math.max(1, Math.abs(value));
    const moved = residuals(at.map((p, k) => (k === j ? p + step : p)));
    return moved.map((r, i) => (r - there[i]!) / step);
  });
  return there.map((_, i) => columns.map((column) => column[i]!));
}

/**
 * Parameters with the least sum of squared residuals, by the method of Levenberg and Marquardt: steps by linear least squares, damped where
 * they lead uphill. Residuals are over their standard deviations. Null where the residuals do not determine the parameters.
 */
export function fitNonlinear(
  residuals: (parameters: readonly number[]) => number[],
  start: readonly number[],
): NonlinearFit | null {
  let parameters = start;
  let there = residuals(parameters);
  let chiSquare = sumOfSquares(there);
  let damping = 1e-3;
  for (let iterations = 1; iterations <= 100; iterations++) {
    const jacobian = jacobianOf(residuals, parameters, there);
    const scales = parameters.map((_, j) => Math.sqrt(sumOfSquares(jacobian.map((row) => row[j]!))));
    let moved = false;
    for (; damping < 1e12; damping *= 10) {
      // Damping as further rows that ask for no change, each in the scale of its parameter.
      const damped = [
        ...jacobian,
        ...scales.map((s, j) => scales.map((_, k) => (j === k ? Math.sqrt(damping) * s : 0))),
      ];
      const step = leastSquares(
        damped,
        [...there.map((r) => -r), ...scales.map(() => 0)],
        damped.map(() => 1),
      );
      if (!step) return null;
      const next = parameters.map((p, j) => p + step.coefficients[j]!);
      const after = residuals(next);
      const sum = sumOfSquares(after);
      if (!(sum <= chiSquare)) continue;
      const gain = chiSquare - sum;
      [parameters, there, chiSquare] = [next, after, sum];
      damping = Math.max(damping / 10, 1e-12);
      moved = gain > 1e-10 * (1e-6 + chiSquare);
      break;
    }
    if (moved) continue;
    const last = jacobianOf(residuals, parameters, there);
    const linear = leastSquares(
      last,
      there.map((r) => -r),
      last.map(() => 1),
    );
    return linear && { parameters, residuals: there, chiSquare, linear, iterations };
  }
  return null;
}
