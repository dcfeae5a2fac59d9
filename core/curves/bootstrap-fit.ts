import { randomStream } from "../montecarlo";
import type { CurvePoint } from "./points";
import { type CurveReading, type CurveSetting, fitAgain, type ReadFit } from "./read-curve";

/** The middle 95 % of what the fits of redrawn curves find. */
export interface BootstrappedFit {
  /** Fits that came to an end, and those that did not. */
  readonly draws: number;
  readonly lost: number;
  /** The last equivalence point, mL. */
  readonly end: readonly [number, number];
  readonly pKas: readonly (readonly [number, number])[];
}

/** Draws between two reports of progress. */
const stride = 5;

/** The middle 95 % of some values. */
function middle(values: readonly number[]): [number, number] {
  const sorted = values.toSorted((a, b) => a - b);
  const at = (part: number) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? NaN;
  return [at(0.025), at(0.975)];
}

/**
 * The fit of a whole curve, again and again from residuals that are drawn anew onto it (Efron and Tibshirani, ch. 9, from memory): each over what it
 * should scatter by, and as large as it would be without the parameters. Knows no linear propagation. Yields the part that is done. Points are those of
 * the reading, in its order.
 */
export function* bootstrapFit(
  points: readonly CurvePoint[],
  reading: CurveReading,
  best: ReadFit,
  setting: CurveSetting,
  { draws, seed }: { readonly draws: number; readonly seed: number },
): Generator<number, BootstrappedFit, void> {
  const { residuals, deviations, degreesOfFreedom } = best.fit;
  const n = points.length;
  const inflate = Math.sqrt(n / Math.max(1, degreesOfFreedom));
  const raw = residuals.map((r, i) => (r / deviations[i]!) * inflate);
  const center = raw.reduce((sum, r) => sum + r, 0) / n;
  const random = randomStream(seed);
  const ends: number[] = [];
  const pKas: number[][] = best.fit.pKas.map(() => []);
  let lost = 0;
  for (let i = 0; i < draws; i++) {
    const drawn = points.map(({ volume, value }, j) => {
      const other = raw[Math.floor(random.uniform() * n)]! - center;
      return { volume, value: value - residuals[j]! + other * deviations[j]! };
    });
    const found = fitAgain(drawn, reading, best, setting);
    if (found) {
      const perLiter = best.protons * found.concentration + found.strong;
      ends.push((perLiter * setting.flaskMl) / setting.titrant);
      found.pKas.forEach((pKa, k) => pKas[k]!.push(pKa));
    } else lost++;
    if (i % stride === stride - 1) yield (i + 1) / draws;
  }
  return { draws: draws - lost, lost, end: middle(ends), pKas: pKas.map(middle) };
}
