import type { AcidFit, Fitted } from "./fit-acid";
import { type CurveReading, type ReadEnd, type ReadFit } from "./read-curve";

/* Which of the ways to read a curve is taken, and why. */

export type Way = "fit" | "gran before" | "gran beyond" | "branches" | "second derivative" | "steepest";

/** An equivalence point by one way, mL; `half` is half of a 95 % interval, or of the distance between points where that is all there is. */
export interface EndByWay {
  readonly way: Way;
  readonly volume: number;
  readonly half: number;
  /** Points beyond the parameters of a fit or a line; none for what is only an interval between points. */
  readonly degreesOfFreedom?: number;
}

/**
 * Standard uncertainty of an end, mL: from a scatter (k = 2), or of an interval between points (rectangular), each of which is read no better
 * than the burette is, `uMl`.
 */
export const uncertaintyOfEnd = ({ half, degreesOfFreedom }: EndByWay, uMl: number): number =>
  degreesOfFreedom === undefined ? Math.hypot(half / Math.sqrt(3), uMl) : half / 2;

/** Fits above this sum of squares per degree of freedom do not describe the points. Common practice, no source. */
const mostReduced = 4;

/** Whether a fit describes the points within what the meter and the burette may be off. */
const describes = ({ fit }: ReadFit): boolean => fit.chiSquare <= mostReduced * fit.degreesOfFreedom;

/** The fit that is taken; null where none describes the points. */
export const bestFit = ({ fits }: CurveReading): ReadFit | null => {
  const [best] = fits;
  return best && describes(best) ? best : null;
};

/**
 * So many protons have gone at an end, by a fit with so many of them: one for each end where strong acid or base may be there too, else by
 * the volumes of the jumps.
 */
export function protonsAt({ ends, fits }: CurveReading, end: ReadEnd, protons: number): number {
  const isMixture = fits.some(({ fit }) => fit.strong !== null);
  if (isMixture) return protons - (ends.length - 1 - ends.indexOf(end));
  const last = ends.at(-1)?.jump.volume ?? end.jump.volume;
  return Math.max(1, Math.round((protons * end.jump.volume) / last));
}

/** What so many protons of the acid take of the base, and what is strong beside it, mol/L in the flask. */
function endByFit({ concentration, strong, correlation }: AcidFit, protons: number): Fitted {
  if (!strong) return { value: protons * concentration.value, u: protons * concentration.u };
  const [a, b] = [protons * concentration.u, strong.u];
  const together = correlation[0]?.at(-1) ?? 0;
  return {
    value: protons * concentration.value + strong.value,
    u: Math.sqrt(Math.max(0, a * a + b * b + 2 * together * a * b)),
  };
}

/** How an end comes out in each way, the one that is taken first: the fit where it describes the points, then Gran's lines, then the shape. */
export function waysTo(
  reading: CurveReading,
  end: ReadEnd,
  { flaskMl, titrant }: { readonly flaskMl: number; readonly titrant: number },
): EndByWay[] {
  const best = bestFit(reading);
  const fitted = best && endByFit(best.fit, protonsAt(reading, end, best.protons));
  const perMolPerL = flaskMl / titrant;
  const lines = [
    { way: "gran before" as const, line: end.before },
    { way: "gran beyond" as const, line: end.beyond },
  ].flatMap(({ way, line }) =>
    line
      ? [
          {
            way,
            volume: line.volume,
            half: 2 * line.u,
            degreesOfFreedom: Math.max(1, line.points.length - 2),
          },
        ]
      : [],
  );
  return [
    ...(best && fitted
      ? [
          {
            way: "fit" as const,
            volume: fitted.value * perMolPerL,
            half: 2 * fitted.u * perMolPerL,
            degreesOfFreedom: best.fit.degreesOfFreedom,
          },
        ]
      : []),
    ...lines.toSorted((a, b) => a.half - b.half),
    ...(end.second === null
      ? []
      : [{ way: "second derivative" as const, volume: end.second, half: end.jump.half }]),
    { way: "steepest", volume: end.jump.volume, half: end.jump.half },
  ];
}

/** How likely each number of protons is by the fits that describe the points, beside the others: Akaike weights. Null where none does. */
export function protonWeights(reading: CurveReading): readonly { protons: number; weight: number }[] | null {
  const best = bestFit(reading)?.fit.aicc;
  if (best === null || best === undefined) return null;
  const weights = reading.fits.map(({ protons, fit }) => ({
    protons,
    weight: Math.exp((best - (fit.aicc ?? Infinity)) / 2),
  }));
  const sum = weights.reduce((all, { weight }) => all + weight, 0);
  return weights.map(({ protons, weight }) => ({ protons, weight: weight / sum }));
}

/** A mass that follows from a curve, g/mol, with half of the interval that comes from the curve alone. */
export interface MassByCurve {
  readonly value: number;
  readonly half: number;
}

/** Mass that takes up one mole of titrant: g over the titrant up to an end. `titrant` in mol/L, `massG` what was weighed in. */
export function equivalentMass({ volume, half }: EndByWay, titrant: number, massG: number): MassByCurve {
  const value = (1000 * massG) / (titrant * volume);
  return { value, half: (value * half) / volume };
}

/** Molar mass by the concentration that a fit finds in a flask of `flaskMl`. */
export function molarMassByFit({ fit }: ReadFit, flaskMl: number, massG: number): MassByCurve {
  const { value: concentration, u } = fit.concentration;
  const value = (1000 * massG) / (concentration * flaskMl);
  return { value, half: (2 * value * u) / concentration };
}

/** Protons that have gone at each end and not at one before it, by the fit that describes the points; null where none does. */
export function protonsOfEnds(reading: CurveReading): readonly number[] | null {
  const best = bestFit(reading);
  if (!best) return null;
  const gone = reading.ends.map((end) => protonsAt(reading, end, best.protons));
  return gone.map((protons, i) => protons - (gone[i - 1] ?? 0));
}

/** An acid that an unknown may be. */
export interface Candidate {
  readonly molarMass: number;
  readonly pKas: readonly number[];
}

/** By this part a molar mass may be off, and by so much a constant. Common practice, no source. */
const [massApart, pKaApart] = [0.02, 0.35];

/** Those of some acids that agree in molar mass, g/mol, and in the constants, nearest in mass first. */
export function candidatesFor<C extends Candidate>(
  acids: readonly C[],
  molarMass: number,
  pKas: readonly number[],
): C[] {
  const off = (acid: C) => Math.abs(acid.molarMass / molarMass - 1);
  return acids
    .filter((acid) => acid.pKas.length === pKas.length && off(acid) <= massApart)
    .filter((acid) => acid.pKas.every((pKa, i) => Math.abs(pKa - pKas[i]!) <= pKaApart))
    .toSorted((a, b) => off(a) - off(b));
}
