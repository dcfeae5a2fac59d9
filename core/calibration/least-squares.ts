/** What a weighted least-squares fit found, and what its uncertainties are made of. */
export interface LeastSquares {
  readonly coefficients: readonly number[];
  /** Sum of w (y - fitted)². */
  readonly residualSum: number;
  /**
   * R⁻ᵀ v: v in directions in which the estimates are independent, each with the standard deviation of one observation of
   * unit weight. The variance of vᵀ·coefficients is s² times the sum of its squares.
   */
  readonly independent: (v: readonly number[]) => number[];
  /** Leverage of each row: the diagonal of the hat matrix. */
  readonly leverages: readonly number[];
}

/**
 * Weighted linear least squares by Householder reflections on the rows √w·[x₁ … x_p | y] (Golub and Van Loan, Matrix
 * Computations, 5.3, from memory). Null where the rows do not determine the coefficients.
 */
export function leastSquares(
  rows: readonly (readonly number[])[],
  y: readonly number[],
  w: readonly number[],
): LeastSquares | null {
  const n = rows.length;
  const p = rows[0]?.length ?? 0;
  if (n < p || p === 0) return null;
  const root = w.map(Math.sqrt);
  const a = rows.map((row, i) => [...row, y[i] ?? NaN].map((x) => x * (root[i] ?? 0)));
  const scaled = a.map((row) => row.slice(0, p));
  const norms = Array.from({ length: p }, (_, j) => Math.hypot(...a.map((row) => row[j] ?? 0)));
  for (let k = 0; k < p; k++) {
    const length = Math.hypot(...a.slice(k).map((row) => row[k] ?? 0));
    if (!(length > 1e-12 * (norms[k] ?? 0))) return null;
    const pivot = at(a, k, k);
    const sign = pivot > 0 ? -1 : 1;
    const v = a.slice(k).map((row, i) => (row[k] ?? 0) - (i === 0 ? sign * length : 0));
    const square = v.reduce((sum, x) => sum + x * x, 0);
    for (let j = k; j <= p; j++) {
      const dot = v.reduce((sum, x, i) => sum + x * at(a, k + i, j), 0);
      v.forEach((x, i) => (a[k + i]![j] = at(a, k + i, j) - (2 * dot * x) / square));
    }
  }
  const coefficients = new Array<number>(p).fill(0);
  for (let k = p - 1; k >= 0; k--) {
    let sum = at(a, k, p);
    for (let j = k + 1; j < p; j++) sum -= at(a, k, j) * (coefficients[j] ?? 0);
    coefficients[k] = sum / at(a, k, k);
  }
  const independent = (v: readonly number[]) => {
    const h: number[] = [];
    for (let k = 0; k < p; k++) {
      let sum = v[k] ?? 0;
      for (let j = 0; j < k; j++) sum -= at(a, j, k) * (h[j] ?? 0);
      h.push(sum / at(a, k, k));
    }
    return h;
  };
  return {
    coefficients,
    residualSum: a.slice(p).reduce((sum, row) => sum + (row[p] ?? 0) ** 2, 0),
    independent,
    leverages: scaled.map((row) => independent(row).reduce((sum, x) => sum + x * x, 0)),
  };
}

const at = (a: readonly (readonly number[])[], i: number, j: number) => a[i]?.[j] ?? 0;
