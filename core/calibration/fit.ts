import { mean } from "../statistics";
import { studentT, twoSidedTail } from "../quantity";
import { failure, type Result, success } from "../result";
import { leastSquares } from "./least-squares";
import { msg, type Phrase } from "../text";

/** The line through the standards: with an intercept, through the origin, or bent. */
export type LineModel = "line" | "origin" | "quadratic";

/** How much each point counts: all alike, or less where the readings scatter more. */
export type Weighting = "none" | "1/s²" | "1/x" | "1/x²";

export interface CalibrationPoint {
  /** Amount of the standard, in the unit of the axis. */
  readonly x: number;
  /** One reading of it. */
  readonly y: number;
}

export interface FittedPoint extends CalibrationPoint {
  readonly fitted: number;
  readonly residual: number;
  readonly weight: number;
  readonly leverage: number;
  /** Externally studentized residual: by how many of its own standard deviations the point lies off a line without it. */
  readonly studentized: number;
}

export interface CalibrationFit {
  readonly model: LineModel;
  readonly weighting: Weighting;
  /** Intercept, slope and curvature; those that the model has not are zero. */
  readonly coefficients: readonly [number, number, number];
  /** Standard errors of the same. */
  readonly standardErrors: readonly [number, number, number];
  readonly points: readonly FittedPoint[];
  /** s(y/x): standard deviation about the line of one reading of unit weight. */
  readonly residualSd: number;
  readonly degreesOfFreedom: number;
  readonly rSquared: number;
  readonly range: readonly [number, number];
  readonly valueAt: (x: number) => number;
  readonly slopeAt: (x: number) => number;
  /** Weight that one reading at this amount would have. */
  readonly weightAt: (x: number) => number;
  /** As in `LeastSquares`, for a vector over intercept, slope, curvature. */
  readonly independent: (v: readonly [number, number, number]) => number[];
}

const columns: Record<LineModel, readonly number[]> = { line: [0, 1], origin: [1], quadratic: [0, 1, 2] };

/** Points that a model needs at least, at unlike amounts. */
export const fewestLevels: Record<LineModel, number> = { line: 3, origin: 2, quadratic: 4 };

const words: Record<LineModel, Phrase> = {
  line: msg`A straight line`,
  origin: msg`A line through the origin`,
  quadratic: msg`A quadratic curve`,
};

/** The points of each amount, from the smallest amount to the largest. */
export function byLevel<P extends CalibrationPoint>(points: readonly P[]): Map<number, P[]> {
  const groups = new Map<number, P[]>();
  for (const point of [...points].sort((a, b) => a.x - b.x)) {
    const group = groups.get(point.x);
    if (group) group.push(point);
    else groups.set(point.x, [point]);
  }
  return groups;
}

const largest = (values: readonly number[]): number => values.reduce((a, b) => Math.max(a, b), -Infinity);

/** Variances of the readings at each level, from its own replicates; half a thousandth of spread at least, as read. */
function varianceAt(points: readonly CalibrationPoint[]): Result<(x: number) => number> {
  const floor = (0.001 / Math.sqrt(12)) ** 2;
  const known: (readonly [number, number])[] = [];
  for (const [x, group] of byLevel(points)) {
    const ys = group.map(({ y }) => y);
    if (ys.length < 2) {
      return failure(msg`Weights 1/s² need at least two readings of every standard: ${x} has one`);
    }
    const center = mean(ys);
    known.push([x, Math.max(floor, ys.reduce((sum, y) => sum + (y - center) ** 2, 0) / (ys.length - 1))]);
  }
  return success((x) => {
    const above = known.findIndex(([level]) => level >= x);
    const high = known[above === -1 ? known.length - 1 : above] ?? [x, floor];
    const low = known[above === -1 ? known.length - 1 : Math.max(0, above - 1)] ?? high;
    if (high[0] === low[0]) return high[1];
    return low[1] + ((high[1] - low[1]) * (x - low[0])) / (high[0] - low[0]);
  });
}

function weightFunction(
  points: readonly CalibrationPoint[],
  weighting: Weighting,
): Result<(x: number) => number> {
  if (weighting === "none") return success(() => 1);
  if (weighting === "1/s²") {
    const variance = varianceAt(points);
    return variance.ok ? success((x: number) => 1 / variance.value(x)) : variance;
  }
  if (points.some(({ x }) => x <= 0)) {
    return failure(
      msg`Weights ${weighting} give a zero standard infinite weight. Leave it out, or choose other weights`,
    );
  }
  const least = -largest(points.map(({ x }) => -x));
  const power = weighting === "1/x" ? 1 : 2;
  // Below the weakest standard nothing is known of the scatter: it is taken as it is there.
  return success((x) => 1 / Math.max(x, least) ** power);
}

/**
 * The calibration function through readings of standards, by weighted least squares. Weights are scaled to a mean of one, so
 * that `residualSd` is that of a typical reading. In words what keeps it from being had: too few standards, all at one level.
 * Standard errors and s(y/x): Draper and Smith, Applied Regression Analysis, ch. 1 and 5 (from memory).
 */
export function fitCalibration(
  points: readonly CalibrationPoint[],
  model: LineModel,
  weighting: Weighting = "none",
  /** Weights by amount, where they are those of another fit. */
  fixed?: (x: number) => number,
): Result<CalibrationFit> {
  const levels = [...byLevel(points).keys()];
  const needed = fewestLevels[model];
  if (points.length === 0) return failure(msg`No standard has been read yet`);
  if (levels.length === 1 && points.length > 1)
    return failure(msg`All standards have the same concentration: a line needs different ones`);
  if (levels.length < needed) {
    const have = levels.length === 1 ? msg`there is one` : msg`there are ${levels.length}`;
    return failure(msg`${words[model]} needs at least ${needed} different standards: ${have}`);
  }
  const weigh = fixed ? success(fixed) : weightFunction(points, weighting);
  if (!weigh.ok) return weigh;
  const raw = new Map(levels.map((x) => [x, weigh.value(x)]));
  const rawAt = (x: number) => raw.get(x) ?? weigh.value(x);
  const meanWeight = mean(points.map(({ x }) => rawAt(x)));
  const weightAt = (x: number) => rawAt(x) / meanWeight;
  const used = columns[model];
  const scale = largest(points.map(({ x }) => Math.abs(x)));
  const design = (x: number) => used.map((power) => (x / scale) ** power);
  const weights = points.map(({ x }) => weightAt(x));
  const solved = leastSquares(
    points.map(({ x }) => design(x)),
    points.map(({ y }) => y),
    weights,
  );
  if (!solved)
    return failure(msg`The standards do not determine a line: do they all have the same concentration?`);
  const unscaled = (power: number) => {
    const i = used.indexOf(power);
    return i === -1 ? 0 : (solved.coefficients[i] ?? 0) / scale ** power;
  };
  const [a, b, c] = [unscaled(0), unscaled(1), unscaled(2)];
  const independent = (v: readonly [number, number, number]) =>
    solved.independent(used.map((power) => (v[power] ?? 0) / scale ** power));
  const degreesOfFreedom = points.length - used.length;
  const scatter = degreesOfFreedom > 0 ? Math.sqrt(solved.residualSum / degreesOfFreedom) : 0;
  // Points that lie on the line but for the last bits of the arithmetic have no scatter.
  const residualSd = scatter > 1e-12 * largest(points.map(({ y }) => Math.abs(y))) ? scatter : 0;
  const error = (v: readonly [number, number, number]) => residualSd * Math.hypot(...independent(v));
  const valueAt = (x: number) => a + x * (b + x * c);
  const fitted = points.map(({ x, y }, i): FittedPoint => {
    const [weight, leverage] = [weights[i] ?? 1, solved.leverages[i] ?? 0];
    const residual = y - valueAt(x);
    const internal = (Math.sqrt(weight) * residual) / (residualSd * Math.sqrt(Math.max(1e-12, 1 - leverage)));
    const left = degreesOfFreedom - internal ** 2;
    const studentized =
      residualSd === 0 || degreesOfFreedom < 2
        ? 0
        : left <= 1e-9
          ? Math.sign(internal) * 1e6
          : internal * Math.sqrt((degreesOfFreedom - 1) / left);
    return { x, y, fitted: valueAt(x), residual, weight, leverage, studentized };
  });
  const totalWeight = weights.reduce((sum, w) => sum + w, 0);
  const meanY =
    model === "origin" ? 0 : points.reduce((sum, { y }, i) => sum + (weights[i] ?? 0) * y, 0) / totalWeight;
  const total = points.reduce((sum, { y }, i) => sum + (weights[i] ?? 0) * (y - meanY) ** 2, 0);
  return success({
    model,
    weighting,
    coefficients: [a, b, c],
    standardErrors: [
      used.includes(0) ? error([1, 0, 0]) : 0,
      error([0, 1, 0]),
      used.includes(2) ? error([0, 0, 1]) : 0,
    ],
    points: fitted,
    residualSd,
    degreesOfFreedom,
    rSquared: total > 0 ? 1 - solved.residualSum / total : 0,
    range: [levels[0] ?? 0, levels.at(-1) ?? 0],
    valueAt,
    slopeAt: (x) => b + 2 * c * x,
    weightAt,
    independent,
  });
}

/**
 * How intercept, slope and curvature follow the amount of one flask, given as its amount, the mean of its readings and their
 * number: the normal equations XᵀWX β = XᵀWy differentiated by that amount, the weight with it.
 */
export function followAmount(
  { model, range, valueAt, slopeAt, weightAt, independent }: CalibrationFit,
  { x, y, readings }: CalibrationPoint & { readonly readings: number },
): readonly [number, number, number] {
  const step = 1e-4 * (range[1] - range[0]);
  const steeper = (weightAt(x + step) - weightAt(x - step)) / (2 * step);
  const weight = weightAt(x);
  const residual = y - valueAt(x);
  // The derivative of one row of XᵀW(y - Xβ), the weight's own change included.
  const moved = (j: Power) =>
    readings *
    (weight * (j * x ** Math.max(0, j - 1) * residual - x ** j * slopeAt(x)) + steeper * x ** j * residual);
  const used = (j: Power) => columns[model].includes(j);
  const along = independent(vector((j) => (used(j) ? moved(j) : 0)));
  return vector((j) =>
    used(j)
      ? independent(vector((k) => (k === j ? 1 : 0))).reduce((sum, h, k) => sum + h * (along[k] ?? 0), 0)
      : 0,
  );
}

type Power = 0 | 1 | 2;

const vector = (at: (power: Power) => number): readonly [number, number, number] => [at(0), at(1), at(2)];

/** Half widths of the 95 % bands at an amount: of the line itself, and of one further reading. */
export function bandsAt(
  { independent, residualSd, degreesOfFreedom, weightAt }: CalibrationFit,
  x: number,
): { readonly confidence: number; readonly prediction: number } {
  if (degreesOfFreedom < 1) return { confidence: 0, prediction: 0 };
  const t = studentT(0.95, degreesOfFreedom);
  const line = independent([1, x, x * x]).reduce((sum, h) => sum + h * h, 0);
  return {
    confidence: t * residualSd * Math.sqrt(line),
    prediction: t * residualSd * Math.sqrt(line + 1 / weightAt(x)),
  };
}

/** The probability of a coefficient so far from zero, were it truly zero; one where nothing can be told. */
export function probabilityOfZero(
  { coefficients, standardErrors, degreesOfFreedom }: CalibrationFit,
  which: 0 | 1 | 2,
) {
  const error = standardErrors[which];
  return error > 0 && degreesOfFreedom > 0
    ? twoSidedTail(Math.abs(coefficients[which]) / error, degreesOfFreedom)
    : 1;
}
