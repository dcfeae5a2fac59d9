import { studentT } from "../quantity";
import { failure, type Result, success } from "../result";
import { upperTailF } from "./advice";
import type { CalibrationFit } from "./fit";
import { msg } from "../text";

/** The scatter of one flask's readings beside that about the line. */
export interface WithinFlask {
  /** Standard deviation of the readings, and its degrees of freedom. */
  readonly sd: number;
  readonly degreesOfFreedom: number;
  /** Standard deviation of one such reading about the line. */
  readonly lineSd: number;
  readonly f: number;
  /** The probability of an F so large, were both scatters the same. */
  readonly probability: number;
  /** False where F contradicts at 5 % that the two are one scatter: then the flask's own counts for its readings. */
  readonly pooled: boolean;
}

/** An amount read off the line, and what its uncertainty is made of. */
export interface ReadOff {
  readonly x: number;
  /** Mean of the unknown's readings. */
  readonly y: number;
  readonly readings: number;
  /** Standard uncertainty of x from the scatter of the unknown's own readings. */
  readonly fromReadings: number;
  /** Degrees of freedom behind that. */
  readonly degreesOfFreedom: number;
  /** Null for a single reading, which shows no scatter. */
  readonly within: WithinFlask | null;
  /** The same from the line: independent parts, each signed. */
  readonly fromLine: readonly number[];
  /** All of it. */
  readonly u: number;
  /** dx/d(intercept, slope, curvature). */
  readonly gradient: readonly [number, number, number];
}

/** Where the line takes the value y, on the branch that the standards lie on; null where it never does. */
export function solveLine(
  { coefficients: [a, b, c], range }: Pick<CalibrationFit, "coefficients" | "range">,
  y: number,
): number | null {
  const d = y - a;
  if (c === 0) return b === 0 ? null : d / b;
  const discriminant = b * b + 4 * c * d;
  if (discriminant < 0) return null;
  const root = Math.sqrt(discriminant);
  const middle = (range[0] + range[1]) / 2;
  // The root on the side of the vertex that the middle of the standards is on, written so that no digits cancel.
  const q = -0.5 * (b + Math.sign(b || 1) * root);
  const roots = [q / c, q === 0 ? 0 : -d / q].filter(Number.isFinite);
  const rising = Math.sign(b + 2 * c * middle);
  return roots.find((x) => Math.sign(b + 2 * c * x) === rising) ?? null;
}

/** Probability of F below which readings scatter more than the line can explain. */
const contradiction = 0.05;

/** The scatter of an unknown's own readings beside that about the line at `x`; null for a single reading. */
export function scatterWithin(
  fit: CalibrationFit,
  readings: readonly number[],
  x: number,
): WithinFlask | null {
  const m = readings.length;
  if (m < 2) return null;
  const mean = readings.reduce((sum, r) => sum + r, 0) / m;
  const variance = readings.reduce((sum, r) => sum + (r - mean) ** 2, 0) / (m - 1);
  const lineSd = fit.residualSd / Math.sqrt(fit.weightAt(x));
  const known = fit.degreesOfFreedom > 0 && lineSd > 0;
  const f = known ? variance / lineSd ** 2 : Infinity;
  const probability = known ? upperTailF(f, m - 1, fit.degreesOfFreedom) : 0;
  return {
    sd: Math.sqrt(variance),
    degreesOfFreedom: m - 1,
    lineSd,
    f,
    probability,
    pooled: known && probability >= contradiction,
  };
}

/**
 * Inverse prediction: the amount at which the line gives the mean of the readings of an unknown. Its variance is
 * s²/f'² · (1/(m w₀) + g(x₀)ᵀ (XᵀWX)⁻¹ g(x₀)), which for a straight line without weights is the textbook's
 * (s/b)² (1/m + 1/n + (ȳ₀ - ȳ)² / (b² Sxx)) (Miller and Miller, Statistics and Chemometrics, 5.6; from memory).
 *
 * For the 1/m of the unknown's own readings, their scatter is pooled with that about the line where an F test does not
 * contradict it at 5 %; where it does, their own counts.
 */
export function readOffLine(fit: CalibrationFit, readings: readonly number[]): Result<ReadOff> {
  const m = readings.length;
  if (m === 0) return failure(msg`The unknown has not been read yet`);
  const y = readings.reduce((sum, r) => sum + r, 0) / m;
  const x = solveLine(fit, y);
  if (x === null) {
    return failure(
      msg`The quadratic curve never reaches ${y.toFixed(3)}: dilute the unknown, or fit a straight line to the lower standards`,
    );
  }
  const slope = fit.slopeAt(x);
  if (slope === 0) return failure(msg`The line is flat: nothing can be read off it`);
  const gradient = [-1 / slope, -x / slope, (-x * x) / slope] as const;
  const within = scatterWithin(fit, readings, x);
  const lineSd = fit.residualSd / Math.sqrt(fit.weightAt(x));
  const degreesOfFreedom =
    (within?.degreesOfFreedom ?? 0) + (within && !within.pooled ? 0 : fit.degreesOfFreedom);
  const variance = !within
    ? lineSd ** 2
    : within.pooled
      ? (fit.degreesOfFreedom * lineSd ** 2 + within.degreesOfFreedom * within.sd ** 2) / degreesOfFreedom
      : within.sd ** 2;
  const fromReadings = Math.sqrt(variance / m) / Math.abs(slope);
  const fromLine = fit.independent(gradient).map((part) => part * fit.residualSd);
  return success({
    x,
    y,
    readings: m,
    fromReadings,
    degreesOfFreedom,
    within,
    fromLine,
    u: Math.hypot(fromReadings, ...fromLine),
    gradient,
  });
}

/**
 * Half of the 95 % interval of an amount read off. Readings whose own scatter counts are an estimate apart from the line's: then
 * the degrees of freedom are effective ones (Welch-Satterthwaite); else all rests on the line's.
 */
export function halfWidthReadOff(
  { within, fromReadings, fromLine, u, degreesOfFreedom }: ReadOff,
  fit: Pick<CalibrationFit, "degreesOfFreedom">,
): number {
  const apart = within !== null && !within.pooled;
  const ofLine = Math.hypot(...fromLine) ** 4 / Math.max(1, fit.degreesOfFreedom);
  const effective = apart
    ? u ** 4 / (fromReadings ** 4 / degreesOfFreedom + ofLine)
    : Math.max(1, fit.degreesOfFreedom);
  return studentT(0.95, effective) * u;
}

/**
 * Where the line meets the axis, as a positive amount: what the sample of a standard addition held. x = a/b for a straight
 * line; its ± comes from the line alone.
 */
export function readOffAxis(fit: CalibrationFit): Result<ReadOff> {
  const x = solveLine(fit, 0);
  if (x === null) return failure(msg`The line does not meet the axis`);
  const slope = fit.slopeAt(x);
  const gradient = [1 / slope, x / slope, (x * x) / slope] as const;
  const fromLine = fit.independent(gradient).map((part) => part * fit.residualSd);
  return success({
    x: -x,
    y: 0,
    readings: 0,
    fromReadings: 0,
    degreesOfFreedom: fit.degreesOfFreedom,
    within: null,
    fromLine,
    u: Math.hypot(...fromLine),
    gradient,
  });
}
