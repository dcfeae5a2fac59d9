import { randomStream } from "../montecarlo/random";
import type { CalibrationFit } from "./fit";
import { scatterWithin, solveLine } from "./inverse";

export interface Bootstrapped {
  /** Redrawn fits that gave an amount. */
  readonly draws: number;
  readonly mean: number;
  readonly standardDeviation: number;
  /** The middle 95 % of the amounts read off. */
  readonly interval: readonly [number, number];
  readonly lost: number;
  /** Counts in equal steps from a little below the interval to a little above it. */
  readonly histogram: { readonly from: number; readonly to: number; readonly counts: readonly number[] };
}

export interface BootstrapOptions {
  readonly draws: number;
  readonly seed: number;
}

/**
 * How the coefficients follow the readings: row j, column i is the change of coefficient j for a residual of reading i in units
 * of its own scatter, (XᵀWX)⁻¹XᵀW / √w. The weights stay those of the fit.
 */
function projection({ points, independent }: CalibrationFit): readonly Float64Array[] {
  const units = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ] as const;
  return units.map((unit) => {
    const own = independent(unit);
    return Float64Array.from(points, ({ x, weight }) => {
      const at = independent([1, x, x * x]);
      return own.reduce((sum, h, k) => sum + h * (at[k] ?? 0), 0) * Math.sqrt(weight);
    });
  });
}

/** Draws between two reports of progress. */
const stride = 200;

/**
 * Bootstrap of an inverse prediction (Efron and Tibshirani, ch. 9, from memory): residuals, each made as large as it would be
 * without its leverage, are drawn again onto the line and onto the unknown's readings (which keep their own where they scatter
 * more), the line is fitted anew, and the amount read off it. Since the fit is linear in the readings, each draw only adds the drawn residuals' projection to the
 * coefficients. Knows no Student's t and no linear propagation. Yields the part that is done.
 */
export function* bootstrapReadOff(
  fit: CalibrationFit,
  readings: readonly number[],
  { draws, seed }: BootstrapOptions,
): Generator<number, Bootstrapped, void> {
  const raw = fit.points.map(
    ({ residual, weight, leverage }) =>
      (residual * Math.sqrt(weight)) / Math.sqrt(Math.max(0.05, 1 - leverage)),
  );
  const center = raw.reduce((a, b) => a + b, 0) / raw.length;
  const pool = Float64Array.from(raw, (r) => r - center);
  const n = pool.length;
  const random = randomStream(seed);
  const m = readings.length;
  const y = readings.reduce((a, b) => a + b, 0) / m;
  const at = solveLine(fit, y) ?? NaN;
  const within = scatterWithin(fit, readings, at);
  // Readings that scatter more than the line explains are drawn from themselves, as the formula counts them.
  const apart = within !== null && !within.pooled;
  const own = apart ? Float64Array.from(readings, (r) => (r - y) * Math.sqrt(m / (m - 1))) : pool;
  const unknownScale = 1 / m / (apart ? 1 : Math.sqrt(fit.weightAt(at)));
  const [byA, byB, byC] = projection(fit) as [Float64Array, Float64Array, Float64Array];
  const [a0, b0, c0] = fit.coefficients;
  const { range } = fit;
  const bent = fit.model === "quadratic";
  const values = new Float64Array(draws);
  let [kept, lost] = [0, 0];
  for (let i = 0; i < draws; i++) {
    let [a, b, c, sum] = [a0, b0, c0, 0];
    // Two picks from each random word: 16 bits are plenty for the few residuals of a line.
    let word = 0;
    for (let j = 0; j < n; j++) {
      word = (j & 1) === 0 ? random.next() : word >>> 16;
      const r = pool[((word & 0xffff) * n) >>> 16]!;
      a += byA[j]! * r;
      b += byB[j]! * r;
      if (bent) c += byC[j]! * r;
    }
    for (let j = 0; j < m; j++) sum += own[Math.floor(random.uniform() * own.length)]!;
    const read = y + sum * unknownScale;
    const x = bent ? solveLine({ coefficients: [a, b, c], range }, read) : (read - a) / b;
    if (x !== null && Number.isFinite(x)) values[kept++] = x;
    else lost++;
    if (i % stride === stride - 1) yield (i + 1) / draws;
  }
  return summarize(values.subarray(0, kept).sort(), lost);
}

function summarize(sorted: Float64Array, lost: number): Bootstrapped {
  const n = sorted.length;
  const mean = sorted.reduce((a, b) => a + b, 0) / n;
  const standardDeviation = Math.sqrt(sorted.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (n - 1));
  const at = (part: number) => sorted[Math.min(n - 1, Math.max(0, Math.round(part * (n - 1))))] ?? NaN;
  const interval = [at(0.025), at(0.975)] as const;
  const margin = 0.35 * (interval[1] - interval[0]);
  const [from, to] = [interval[0] - margin, interval[1] + margin];
  const counts = new Array<number>(48).fill(0);
  for (const v of sorted) {
    const bin = Math.floor(((v - from) / (to - from)) * counts.length);
    if (bin >= 0 && bin < counts.length) counts[bin]!++;
  }
  return { draws: n, mean, standardDeviation, interval, lost, histogram: { from, to, counts } };
}
