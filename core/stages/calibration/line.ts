import {
  type CalibrationFit,
  fitCalibration,
  followAmount,
  readOffAxis,
  readOffLine,
  type ReadOff,
  solveLine,
} from "../../calibration";
import {
  type Dimension,
  dimensionless,
  divideDimensions,
  type Leaf,
  leaf,
  type Quantity,
  type Sensitivity,
  unitOf,
} from "../../quantity";
import type { Result } from "../../result";
import { mean } from "../../statistics";
import type { LineChoice, ReadQuantity } from "../shared/evaluation";
import { msg } from "../../text";

/** A flask that is part of a line: its amount with its causes, and its readings that count. */
export interface LineLevel {
  readonly amount: Quantity;
  readonly x: number;
  readonly ys: readonly number[];
}

/** A line with everything that quantities read off it rest on. */
export interface StageLine {
  readonly fit: CalibrationFit;
  readonly intercept: Quantity;
  readonly slope: Quantity;
  /** Where it meets the axis, as a positive amount; null where it does not. */
  readonly cut: Quantity | null;
  readonly readOff: (readings: readonly number[], trial: string) => Result<ReadQuantity>;
}

/** What is deducted from all readings, of standards and unknowns alike: the blank, with its one cause. */
export interface Deducted {
  readonly absorbance: number;
  readonly cause: Leaf;
}

/** A line a little to either side, and how far: what is had from it is had from both, and the difference taken. */
type Moved = readonly [up: Bare, down: Bare, step: number];

/** A line by its coefficients alone. */
type Bare = Pick<CalibrationFit, "coefficients" | "range">;

/**
 * The line moved by each flask's amount a little larger and smaller: how whatever is had from the line follows the amounts, and
 * through them the stock, its pipette, its flask.
 */
function movedByAmounts(levels: readonly LineLevel[], fit: CalibrationFit): (Moved | null)[] {
  const step = 1e-4 * (fit.range[1] - fit.range[0]);
  return levels.map(({ amount, x, ys }) => {
    if (![...amount.sensitivities.values()].some((s) => !s.leaf.random)) return null;
    const by = followAmount(fit, { x, y: mean(ys), readings: ys.length });
    const [a, b, c] = fit.coefficients;
    const bare = (to: number): Bare => ({
      coefficients: [a + to * by[0], b + to * by[1], c + to * by[2]],
      range: fit.range,
    });
    return [bare(step), bare(-step), step];
  });
}

/**
 * The line through flasks whose amounts are themselves uncertain. What scatters from flask to flask shows in the scatter
 * about the line and is counted there; what all flasks share (the stock's concentration, a pipette) moves the whole line
 * and is carried through.
 */
export function stageLine(
  levels: readonly LineLevel[],
  { model, weighting }: LineChoice,
  stage: string,
  axisUnit: string,
  blank: Deducted | null = null,
): Result<StageLine> {
  const taken = blank?.absorbance ?? 0;
  const points = levels.flatMap(({ x, ys }) => ys.map((y) => ({ x, y: y - taken })));
  const fitted = fitCalibration(points, model, weighting);
  if (!fitted.ok) return fitted;
  const fit = fitted.value;
  const moved = movedByAmounts(
    levels.map((level) => ({ ...level, ys: level.ys.map((y) => y - taken) })),
    fit,
  );
  const blankStep = 1e-4 * Math.max(...points.map(({ y }) => Math.abs(y)), 1e-3);
  const withBlank = (by: number) =>
    fitCalibration(
      points.map(({ x, y }) => ({ x, y: y - by })),
      fit.model,
      fit.weighting,
      fit.weightAt,
    );
  const [moreBlank, lessBlank] = blank ? [withBlank(blankStep), withBlank(-blankStep)] : [null, null];
  const axis = unitOf(axisUnit);
  const perAxis: Dimension = divideDimensions(dimensionless, axis.dimension);

  /** A quantity had from the line: its value, how it follows the independent parts of the fit, and the amounts. */
  const derived = (
    value: number,
    parts: readonly number[],
    of: (line: Bare, moreDeducted: number) => number | null,
    factor: number,
    dimension: Dimension,
    own?: Sensitivity,
  ): Quantity => {
    const sensitivities = new Map<string, Sensitivity>();
    const put = ({ leaf: l, by }: Sensitivity) => {
      if (l.u > 0) sensitivities.set(l.id, { leaf: l, by: by + (sensitivities.get(l.id)?.by ?? 0) });
    };
    parts.forEach((by, j) =>
      put({
        leaf: leaf({
          id: `line:${stage}:${j}`,
          kind: "line",
          label: msg`Residual standard deviation`,
          group: msg`Calibration line`,
          u: fit.residualSd,
          degreesOfFreedom: Math.max(1, fit.degreesOfFreedom),
          estimate: `line:${stage}`,
          stage,
        }),
        by: by * factor,
      }),
    );
    levels.forEach(({ amount }, i) => {
      const fits = moved[i];
      if (!fits) return;
      const [up, down, step] = fits;
      const slope = ((of(up, 0) ?? NaN) - (of(down, 0) ?? NaN)) / (2 * step);
      if (!Number.isFinite(slope)) return;
      for (const { leaf: l, by } of amount.sensitivities.values())
        if (!l.random) put({ leaf: l, by: (slope * factor * by) / axis.factor });
    });
    if (blank && moreBlank?.ok && lessBlank?.ok) {
      const slope =
        ((of(moreBlank.value, blankStep) ?? NaN) - (of(lessBlank.value, -blankStep) ?? NaN)) /
        (2 * blankStep);
      if (Number.isFinite(slope)) put({ leaf: blank.cause, by: slope * factor });
    }
    if (own) put(own);
    return { value: value * factor, dimension, sensitivities };
  };
  const partsOf = ({ fromLine }: ReadOff) =>
    fit.residualSd > 0 ? fromLine.map((part) => part / fit.residualSd) : [];
  const [a, b] = fit.coefficients;
  const cut = readOffAxis(fit);
  return {
    ok: true,
    value: {
      fit,
      intercept: derived(a, fit.independent([1, 0, 0]), (f) => f.coefficients[0], 1, dimensionless),
      slope: derived(b, fit.independent([0, 1, 0]), (f) => f.coefficients[1], 1 / axis.factor, perAxis),
      cut: cut.ok
        ? derived(
            cut.value.x,
            partsOf(cut.value),
            (f) => {
              const x = solveLine(f, 0);
              return x === null ? null : -x;
            },
            axis.factor,
            axis.dimension,
          )
        : null,
      readOff: (readings, trial) => {
        const off = readOffLine(
          fit,
          readings.map((y) => y - taken),
        );
        if (!off.ok) return off;
        const own = leaf({
          id: `readings:${stage}:${trial}`,
          kind: "readings",
          label: msg`Readings of the unknown`,
          group: msg`Readings of the unknown`,
          u: off.value.fromReadings,
          random: true,
          degreesOfFreedom: Math.max(1, off.value.degreesOfFreedom),
          ...(off.value.within && !off.value.within.pooled ? {} : { estimate: `line:${stage}` }),
        });
        const quantity = derived(
          off.value.x,
          partsOf(off.value),
          (f, moreDeducted) => solveLine(f, off.value.y - moreDeducted),
          axis.factor,
          axis.dimension,
          { leaf: own, by: axis.factor },
        );
        return { ok: true, value: { quantity, off: off.value } };
      },
    },
  };
}
