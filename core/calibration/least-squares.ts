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
  // One array a column, the right-hand side last.
  const columns = Array.from({ length: p + 1 }, (_, j) =>
    Float64Array.from(rows, (row, i) => ((j < p ? row[j] : y[i]) ?? NaN) * Math.sqrt(w[i] ?? NaN)),
  );
  const scaled = columns.slice(0, p).map((column) => column.slice());
  for (let k = 0; k < p; k++) {
    const column = columns[k]!;
    const length = norm(column.subarray(k));
    if (!(length > 1e-12 * norm(scaled[k]!))) return null;
    const v = column.slice(k);
    v[0]! += v[0]! > 0 ? length : -length;
    for (const other of columns.slice(k)) reflect(other.subarray(k), v);
  }
  const at = (i: number, j: number) => columns[j]![i]!;
  const coefficients = new Array<number>(p).fill(0);
  for (let k = p - 1; k >= 0; k--) {
    let sum = at(k, p);
    for (let j = k + 1; j < p; j++) sum -= at(k, j) * (coefficients[j] ?? 0);
    coefficients[k] = sum / at(k, k);
  }
  const independent = (v: readonly number[]) => {
    const h: number[] = [];
    for (let k = 0; k < p; k++) {
      let sum = v[k] ?? 0;
      for (let j = 0; j < k; j++) sum -= at(j, k) * (h[j] ?? 0);
      h.push(sum / at(k, k));
    }
    return h;
  };
  return {
    coefficients,
    residualSum: columns[p]!.subarray(p).reduce((sum, x) => sum + x * x, 0),
    independent,
    leverages: rows.map((_, i) =>
      independent(scaled.map((column) => column[i]!)).reduce((sum, x) => sum + x * x, 0),
    ),
  };
}

const norm = (x: Float64Array): number => Math.sqrt(x.reduce((sum, xi) => sum + xi * xi, 0));

/** Reflects x, in place, at the plane that v stands upright on. */
function reflect(x: Float64Array, v: Float64Array): void {
  let [dot, square] = [0, 0];
  for (let i = 0; i < v.length; i++) {
    dot += v[i]! * x[i]!;
    square += v[i]! * v[i]!;
  }
  for (let i = 0; i < v.length; i++) x[i]! -= (2 * dot * v[i]!) / square;
}
