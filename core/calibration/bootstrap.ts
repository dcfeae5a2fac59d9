import { randomStream } from "../montecarlo/random";
import { type CalibrationFit, fitCalibration } from "./fit";
import { solveLine } from "./inverse";

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
 * Bootstrap of an inverse prediction (Efron and Tibshirani, ch. 9, from memory): residuals, each made as large as it would be
 * without its leverage, are drawn again onto the line and onto the unknown's readings, the line is fitted anew, and the
 * amount read off it. Knows no Student's t and no linear propagation. Yields the part that is done.
 */
export function* bootstrapReadOff(
  fit: CalibrationFit,
  readings: readonly number[],
  { draws, seed }: BootstrapOptions,
): Generator<number, Bootstrapped, void> {
  const random = randomStream(seed);
  const raw = fit.points.map(
    ({ residual, weight, leverage }) =>
      (residual * Math.sqrt(weight)) / Math.sqrt(Math.max(0.05, 1 - leverage)),
  );
  const center = raw.reduce((a, b) => a + b, 0) / raw.length;
  const pool = raw.map((r) => r - center);
  const pick = () => pool[Math.floor(random.uniform() * pool.length)] ?? 0;
  const y = readings.reduce((a, b) => a + b, 0) / readings.length;
  const x0 = solveLine(fit, y) ?? NaN;
  const unknownScale = 1 / Math.sqrt(fit.weightAt(x0));
  const values = new Float64Array(draws);
  let [kept, lost] = [0, 0];
  for (let i = 0; i < draws; i++) {
    const points = fit.points.map(({ x, fitted, weight }) => ({ x, y: fitted + pick() / Math.sqrt(weight) }));
    let sum = 0;
    for (let j = 0; j < readings.length; j++) sum += pick() * unknownScale;
    const again = fitCalibration(points, fit.model, fit.weighting);
    const x = again.ok ? solveLine(again.value, y + sum / readings.length) : null;
    if (x !== null && Number.isFinite(x)) values[kept++] = x;
    else lost++;
    if (i % 200 === 199) yield (i + 1) / draws;
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
