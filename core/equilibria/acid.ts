import { logGammaOfOne, pKShift } from "./water";

/** The loss of one proton. */
export interface AcidStep {
  readonly pKa: number;
  /** Ionic strength that the constant holds at, mol/L; zero where nothing is said. */
  readonly ionicStrength?: number;
  /** Enthalpy of the loss, kJ/mol; where nothing is said, the constant is taken as it is at every temperature. */
  readonly enthalpyKJ?: number;
}

/** An acid with all the forms that it has as it loses its protons, one after the other: HA, A-; or H3A, H2A-, HA^2-, A^3-. */
export interface AcidSystem {
  /** Charge of the form that has all its protons: 0 for acetic acid, +1 for ammonium. */
  readonly charge: number;
  /** The strongest first. */
  readonly steps: readonly AcidStep[];
}

/** What equilibria are computed for. */
export interface Setting {
  readonly celsius: number;
  /** Activity coefficients: all one, or by the equation of Davies with the ionic strength solved for. */
  readonly activity: "none" | "davies";
  /** -log10 of the ion product of water; that of the temperature where nothing is said. */
  readonly pKw?: number;
}

export const room: Setting = { celsius: 25, activity: "none" };

/**
 * -log10 of the constant of one step in concentrations, at an ionic strength: brought to zero ionic strength from that which it was
 * measured at, to the temperature, and to the one it is wanted at. `step` counts from 0.
 */
function pKaAt({ charge, steps }: AcidSystem, step: number, logGamma: number, setting: Setting): number {
  const { pKa, ionicStrength = 0, enthalpyKJ = 0 } = steps[step] ?? { pKa: NaN };
  const before = charge - step;
  const after = before - 1;
  // log γ(H) + log γ(A) - log γ(HA), in units of that of one charge.
  const charges = 1 + after ** 2 - before ** 2;
  const there = setting.activity === "none" ? 0 : logGammaOfOne(ionicStrength, 25);
  const shift = enthalpyKJ === 0 ? 0 : pKShift(enthalpyKJ, setting.celsius);
  return pKa - charges * there + shift + charges * logGamma;
}

/** The constants of all steps in concentrations, mol/L; `logGamma` is log10 of the activity coefficient of one charge. */
export const constantsOf = (acid: AcidSystem, logGamma: number, setting: Setting): number[] =>
  acid.steps.map((_, step) => 10 ** -pKaAt(acid, step, logGamma, setting));

/**
 * Parts of an acid that are there in each of its forms, the one with all its protons first, at a concentration of H+, mol/L. They add up
 * to one.
 */
export function fractions(constants: readonly number[], h: number): number[] {
  const terms = [1];
  let largest = 1;
  for (const [i, k] of constants.entries()) {
    const term = ((terms[i] ?? 0) * k) / h;
    terms.push(term);
    if (term > largest) largest = term;
  }
  // Divided first: six protons at pH 14 and beyond are powers that overflow when they are added.
  const sum = terms.reduce((all, term) => all + term / largest, 0);
  return terms.map((term) => term / largest / sum);
}
