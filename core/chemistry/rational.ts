/** Exact fractions of big integers: all that balancing an equation needs. */
export interface Rational {
  readonly over: bigint;
  readonly under: bigint;
}

export function greatestCommonDivisor(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y !== 0n) [x, y] = [y, x % y];
  return x;
}

export function rational(over: bigint | number, under: bigint | number = 1n): Rational {
  const [n, d] = [BigInt(over), BigInt(under)];
  const divisor = greatestCommonDivisor(n, d) || 1n;
  const sign = d < 0n ? -1n : 1n;
  return { over: (sign * n) / divisor, under: (sign * d) / divisor };
}

/** A count of atoms as an exact fraction: whole, or a simple part as a hemihydrate has them. */
export function fraction(count: number): Rational {
  const under = [1, 2, 3, 4, 5, 6, 8].find((d) => Math.abs(count * d - Math.round(count * d)) < 1e-9) ?? 1000;
  return rational(Math.round(count * under), under);
}

export const isZero = (a: Rational) => a.over === 0n;
export const times = (a: Rational, b: Rational) => rational(a.over * b.over, a.under * b.under);
export const dividedBy = (a: Rational, b: Rational) => rational(a.over * b.under, a.under * b.over);
export const minus = (a: Rational, b: Rational) =>
  rational(a.over * b.under - b.over * a.under, a.under * b.under);
export const negative = (a: Rational) => rational(-a.over, a.under);

/** A basis of the null space of a matrix (rows of equal length), by Gauss-Jordan elimination. */
export function nullSpace(matrix: readonly (readonly Rational[])[], columns: number): Rational[][] {
  const rows = matrix.map((row) => [...row]);
  const pivots: number[] = [];
  let next = 0;
  for (let column = 0; column < columns && next < rows.length; column++) {
    const found = rows.findIndex((row, i) => i >= next && !isZero(row[column] ?? rational(0)));
    if (found < 0) continue;
    const pivotRow = rows[found] ?? [];
    rows[found] = rows[next] ?? [];
    const pivot = pivotRow[column] ?? rational(1);
    const scaled = pivotRow.map((value) => dividedBy(value, pivot));
    rows[next] = scaled;
    rows.forEach((row, i) => {
      const factor = row[column];
      if (i === next || !factor || isZero(factor)) return;
      rows[i] = row.map((value, j) => minus(value, times(factor, scaled[j] ?? rational(0))));
    });
    pivots.push(column);
    next++;
  }
  const free = [...Array(columns).keys()].filter((column) => !pivots.includes(column));
  return free.map((freeColumn) =>
    [...Array(columns).keys()].map((column) => {
      if (column === freeColumn) return rational(1);
      const row = pivots.indexOf(column);
      return row < 0 ? rational(0) : negative(rows[row]?.[freeColumn] ?? rational(0));
    }),
  );
}
