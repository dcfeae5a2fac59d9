import { type Mixture, type Setting, solvePH, poured } from "../equilibria";
import { chiSquareTail } from "../judgement";
import { fitNonlinear } from "./levenberg-marquardt";
import type { CurvePoint } from "./points";

/* The whole curve of an acid by a strong base, fitted: concentration and constants together. */

export interface AcidFitSetting {
  /** Volume in the flask at the start, mL. */
  readonly flaskMl: number;
  /** Concentration of the base, mol/L. */
  readonly base: number;
  readonly setting: Setting;
  /** Standard uncertainty of a reading of the meter, and of a volume, mL. */
  readonly uPH: number;
  readonly uMl: number;
  /** Whether the electrode may be off by a constant. */
  readonly offset?: boolean;
  /** Whether the base may have taken up carbon dioxide: carbonate in it, mol/L. */
  readonly carbonate?: boolean;
  /** Whether a strong acid may be there beside it; or a strong base, which has taken part of its protons: less than nothing of one. */
  readonly strong?: boolean;
}

/** Where a fit begins: all protons together, mol/L, and the constants. */
export interface AcidStart {
  readonly concentration: number;
  readonly pKas: readonly number[];
  /** Strong acid beside it, mol/L. */
  readonly strong?: number;
}

export interface Fitted {
  readonly value: number;
  /** Standard uncertainty. */
  readonly u: number;
}

export interface AcidFit {
  /** Concentration of the acid in the flask at the start, mol/L. */
  readonly concentration: Fitted;
  readonly pKas: readonly Fitted[];
  readonly offset: Fitted | null;
  readonly carbonate: Fitted | null;
  /** Strong acid beside it, mol/L. */
  readonly strong: Fitted | null;
  /** Read less fitted, in pH, at each point. */
  readonly residuals: readonly number[];
  /** What each of them should scatter by, pH: the meter, and what a volume a little off makes of it. */
  readonly deviations: readonly number[];
  readonly chiSquare: number;
  readonly degreesOfFreedom: number;
  /** Akaike's criterion, corrected for few points; the smaller, the better. Null where there are too few. */
  readonly aicc: number | null;
  /** Correlation of the parameters: concentration, constants, offset, carbonate, strong acid, as far as they were fitted. */
  readonly correlation: readonly (readonly number[])[];
}

const carbonic = { charge: 0, steps: [{ pKa: 6.35 }, { pKa: 10.33 }] };

/** Scatter that comes by chance in fewer cases than this is no chance. Common practice. */
const leastProbability = 0.05;

/** Parameters: ln of the concentration, the constants, and what else is fitted. */
interface Parts {
  readonly concentration: number;
  readonly pKas: readonly number[];
  readonly offset: number;
  readonly carbonate: number;
  readonly strong: number;
}

/** Where each of the further parameters stands behind the constants; -1 for what is not fitted. */
function placesOf({ offset, carbonate, strong }: AcidFitSetting) {
  const fitted = [offset, carbonate, strong].map(Boolean);
  const [atOffset = -1, atCarbonate = -1, atStrong = -1] = fitted.map((is, i) =>
    is ? fitted.slice(0, i).filter(Boolean).length : -1,
  );
  return { atOffset, atCarbonate, atStrong };
}

function partsOf(parameters: readonly number[], protons: number, given: AcidFitSetting): Parts {
  const { atOffset, atCarbonate, atStrong } = placesOf(given);
  const [log = NaN, ...others] = parameters;
  const further = others.slice(protons);
  return {
    concentration: Math.exp(log),
    pKas: others.slice(0, protons),
    offset: further[atOffset] ?? 0,
    carbonate: further[atCarbonate] ?? 0,
    strong: further[atStrong] ?? 0,
  };
}

function mixturesOf(
  { concentration, pKas, carbonate, strong }: Parts,
  base: number,
): { flask: Mixture; titrant: Mixture } {
  const acid = { charge: 0, steps: pKas.map((pKa) => ({ pKa })) };
  return {
    flask: {
      acids: [{ acid, concentration }],
      ions: strong === 0 ? [] : [{ charge: -1, concentration: strong }],
    },
    // Each carbonate has taken the place of two hydroxides; the sodium is what it was.
    titrant: {
      acids: carbonate === 0 ? [] : [{ acid: carbonic, concentration: carbonate }],
      ions: [{ charge: 1, concentration: base }],
    },
  };
}

/** The pH that the model has after an addition. */
function modelled(parts: Parts, { flaskMl, base, setting }: AcidFitSetting) {
  const { flask, titrant } = mixturesOf(parts, base);
  return (ml: number) => solvePH(poured(flask, flaskMl, titrant, ml), setting).pH + parts.offset;
}

/** By so much the volume is moved for the slope of the model, mL. */
const nudge = 1e-3;

/**
 * Fits the curve of an acid with so many protons as there are constants to begin with. Each point weighs by the noise of the meter and, where
 * the curve is steep, by what a volume a little off makes of it. Null where the points do not determine the parameters.
 */
export function fitAcid(
  points: readonly CurvePoint[],
  given: AcidFitSetting,
  start: AcidStart,
): AcidFit | null {
  const protons = start.pKas.length;
  const first = [
    Math.log(start.concentration),
    ...start.pKas,
    ...(given.offset ? [0] : []),
    ...(given.carbonate ? [0] : []),
    ...(given.strong ? [start.strong ?? 0] : []),
  ];
  if (points.length <= first.length) return null;
  const deviations = (parameters: readonly number[]) => {
    const model = modelled(partsOf(parameters, protons, given), given);
    return points.map(({ volume }) => {
      const slope =
        (model(volume + nudge) - model(Math.max(0, volume - nudge))) / (volume < nudge ? nudge : 2 * nudge);
      return Math.hypot(given.uPH, slope * given.uMl);
    });
  };
  const residualsWith = (weights: readonly number[]) => (parameters: readonly number[]) => {
    const model = modelled(partsOf(parameters, protons, given), given);
    return points.map(({ volume, value }, i) => (value - model(volume)) / weights[i]!);
  };
  // The weights are those of the curve that is found: three times are enough for them to stand still.
  let at: readonly number[] = first;
  let fit: ReturnType<typeof fitNonlinear> = null;
  let weights: number[] = [];
  for (let i = 0; i < 3; i++) {
    weights = deviations(at);
    fit = fitNonlinear(residualsWith(weights), at);
    if (!fit) return null;
    at = fit.parameters;
  }
  return fit && { ...read(fit, points, protons, given), deviations: weights };
}

function read(
  { parameters, residuals, chiSquare, linear }: NonNullable<ReturnType<typeof fitNonlinear>>,
  points: readonly CurvePoint[],
  protons: number,
  given: AcidFitSetting,
): Omit<AcidFit, "deviations"> {
  const parts = partsOf(parameters, protons, given);
  const unit = (j: number) => linear.independent(parameters.map((_, k) => (k === j ? 1 : 0)));
  const directions = parameters.map((_, j) => unit(j));
  const [n, k] = [residuals.length, parameters.length];
  // Where the points scatter more than their own ± say, and more than chance explains, that scatter counts.
  const scatter = chiSquareTail(chiSquare, n - k) < leastProbability ? Math.sqrt(chiSquare / (n - k)) : 1;
  const lengths = directions.map((d) => Math.hypot(...d));
  const u = lengths.map((length) => length * scatter);
  const correlation = directions.map((a, i) =>
    directions.map((b, j) => a.reduce((sum, x, k) => sum + x * b[k]!, 0) / (lengths[i]! * lengths[j]!)),
  );
  const model = modelled(parts, given);
  const { atOffset, atCarbonate, atStrong } = placesOf(given);
  const further = (at: number, value: number): Fitted | null =>
    at < 0 ? null : { value, u: u[1 + protons + at]! };
  return {
    concentration: { value: parts.concentration, u: parts.concentration * u[0]! },
    pKas: parts.pKas.map((value, i) => ({ value, u: u[1 + i]! })),
    offset: further(atOffset, parts.offset),
    carbonate: further(atCarbonate, parts.carbonate),
    strong: further(atStrong, parts.strong),
    residuals: points.map(({ volume, value }) => value - model(volume)),
    chiSquare,
    degreesOfFreedom: n - k,
    aicc: n - k > 1 ? chiSquare + 2 * k + (2 * k * (k + 1)) / (n - k - 1) : null,
    correlation,
  };
}
