import { placeOf, type Taker } from "./uptake";
import { nernstSlope } from "./water";

/* Oxidants and reductants that are titrated with each other: the potential at which all electrons are accounted for. */

/** A couple: one of the oxidized form, with electrons and protons, gives half of one, one or two of the reduced form. */
export interface Couple {
  /** Standard potential, V. */
  readonly volts: number;
  readonly electrons: number;
  readonly protons: number;
  /** How many of the reduced form come of one of the oxidized: 2 for I2 and I-, or for Cr2O7^2- and Cr^3+; 0.5 for CO2 and H2C2O4. */
  readonly reduced: 0.5 | 1 | 2;
}

/** A couple in a flask: all of it counted as its reduced form, mol/L, and how much of that was put in reduced. */
export interface CoupleInFlask {
  readonly couple: Couple;
  readonly total: number;
  readonly putReduced: number;
}

/** Electrons that one of the reduced form gives. */
export const electronsEach = ({ electrons, reduced }: Couple): number => electrons / reduced;

/** How much of a couple is reduced, mol/L, at an activity of electrons; [Red]^b / [Ox] = q by Nernst's equation. */
function reducedAt({ couple, total }: CoupleInFlask, pe: number, pH: number, slope: number): number {
  const { volts, electrons, protons, reduced } = couple;
  const q = 10 ** (electrons * (volts / slope - pe) - protons * pH);
  if (reduced === 1) return total / (1 + 1 / q);
  if (reduced === 0.5) {
    // [Red] = (2 q (total - [Red]))²
    const part = 1 / (8 * q ** 2);
    return total ** 2 / (total + part + Math.sqrt(part * (2 * total + part)));
  }
  return (2 * total) / (1 + Math.sqrt(1 + (8 * total) / q));
}

export interface SolvedPotential {
  /** Against the standard hydrogen electrode, V. */
  readonly volts: number;
  /** How much of each couple is reduced, mol/L, in their order. */
  readonly reduced: readonly number[];
}

/** The potential of a mixture of couples: what was put in reduced has brought all electrons there are. At least two of them take part. */
export function solvePotential(
  couples: readonly CoupleInFlask[],
  pH: number,
  celsius: number,
): SolvedPotential {
  const slope = nernstSlope(celsius);
  const put = couples.reduce((sum, { couple, putReduced }) => sum + electronsEach(couple) * putReduced, 0);
  const takers = couples.map(
    (one): Taker =>
      (place) =>
        electronsEach(one.couple) * reducedAt(one, -place, pH, slope),
  );
  const pe = -placeOf(takers, put, [-60, 60]);
  return { volts: pe * slope, reduced: couples.map((one) => reducedAt(one, pe, pH, slope)) };
}
