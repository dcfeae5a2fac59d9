import { free, placeOf, type Taker } from "./uptake";

/* Halides that silver takes out of a solution, the least soluble first. */

/** A halide in a flask: -log10 of the solubility product of its silver salt, and all of it, mol/L. */
export interface HalideInFlask {
  readonly pKs: number;
  readonly concentration: number;
}

export interface SolvedSilver {
  /** -log10 of the free silver, mol/L. */
  readonly pAg: number;
  /** What of each halide is still dissolved, mol/L. */
  readonly dissolved: readonly number[];
}

/** Free silver where silver and halides are together; each halide is dissolved as far as its salt is. */
export function solveSilver(halides: readonly HalideInFlask[], silver: number): SolvedSilver {
  const dissolvedAt = ({ pKs, concentration }: HalideInFlask, place: number) =>
    Math.min(concentration, 10 ** (-pKs - place));
  const takers = halides.map(
    (one): Taker =>
      (place) =>
        one.concentration - dissolvedAt(one, place),
  );
  const place = placeOf([...takers, free], silver, [-30, 2]);
  return { pAg: -place, dissolved: halides.map((one) => dissolvedAt(one, place)) };
}
