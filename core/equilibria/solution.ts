import { type AcidSystem, constantsOf, type Setting } from "./acid";
import { logGammaOfOne, mostIonicStrength, pKwAt } from "./water";

/* What is dissolved, and the pH that it has: balances of mass and of charge, solved together. */

/** An acid with all its forms, whichever of them it was put in as. */
export interface DissolvedAcid {
  readonly acid: AcidSystem;
  /** Of all forms together, mol/L; or of the form with all its protons where that is held by the air, as carbon dioxide. */
  readonly concentration: number;
  /** True where the form with all its protons is held at its concentration, however much of the others forms. */
  readonly open?: boolean;
}

/** Ions that take no part in the equilibria: sodium of a base or a salt, chloride of a strong acid. */
export interface DissolvedIon {
  readonly charge: number;
  readonly concentration: number;
}

export interface Mixture {
  readonly acids: readonly DissolvedAcid[];
  readonly ions: readonly DissolvedIon[];
}

export interface SolvedPH {
  /** Minus the logarithm of the activity of H+. */
  readonly pH: number;
  /** Concentration of H+, mol/L. */
  readonly h: number;
  readonly ionicStrength: number;
  /** True where the activity coefficients are not to be trusted any more: no pH to 0.01 is claimed then. */
  readonly beyondDavies: boolean;
}

/** Mixtures are solved between these concentrations, mol/L. */
export const solvedRange = [1e-9, 10] as const;

/** Beyond these no solution of water is, ln of H+ in mol/L. */
const [least, most] = [-17 * Math.LN10, 2 * Math.LN10];

/** The balance of charge of a mixture at an ionic strength, and what it is made of, at ln of a concentration of H+. */
class ChargeBalance {
  private readonly water: number;
  private readonly constants: readonly (readonly number[])[];
  private readonly ions: number;
  private readonly squaresOfIons: number;
  /** Charges, mol/L, that do not add up to nothing; it rises with H+. */
  surplus = NaN;
  /** By ln of H+. */
  slope = NaN;
  ionicStrength = NaN;

  constructor(
    private readonly mixture: Mixture,
    logGamma: number,
    setting: Setting,
  ) {
    this.water = 10 ** -((setting.pKw ?? pKwAt(setting.celsius)) + 2 * logGamma);
    this.constants = mixture.acids.map(({ acid }) => constantsOf(acid, logGamma, setting));
    this.ions = mixture.ions.reduce((sum, { charge, concentration }) => sum + charge * concentration, 0);
    this.squaresOfIons = mixture.ions.reduce((sum, { charge, concentration: c }) => sum + charge ** 2 * c, 0);
  }

  at(x: number): void {
    const h = Math.exp(x);
    const hydroxide = this.water / h;
    let surplus = h - hydroxide + this.ions;
    let slope = h + hydroxide;
    let squares = h + hydroxide + this.squaresOfIons;
    const { acids } = this.mixture;
    for (let i = 0; i < acids.length; i++) {
      const { acid, concentration, open } = acids[i]!;
      const steps = this.constants[i]!;
      // Each form over the one with all its protons; sums of them, of the protons that they lost, and of the squares of those.
      let form = 1;
      let [s0, s1, s2] = [1, 0, 0];
      for (let lost = 1; lost <= steps.length; lost++) {
        form *= steps[lost - 1]! / h;
        s0 += form;
        s1 += lost * form;
        s2 += lost * lost * form;
      }
      const [mean, meanSquare] = [s1 / s0, s2 / s0];
      const total = open ? concentration * s0 : concentration;
      surplus += total * (acid.charge - mean);
      squares += total * (acid.charge ** 2 - 2 * acid.charge * mean + meanSquare);
      slope += open ? concentration * (s2 - acid.charge * s1) : total * (meanSquare - mean * mean);
    }
    this.surplus = surplus;
    this.slope = slope;
    this.ionicStrength = squares / 2;
  }

  /** ln of H+ where the charges add up to nothing: by Newton's steps from a guess, halving what they leave where one leads out of it. */
  solve(guess: number): number {
    let [below, above] = [least, most];
    let x = Math.min(Math.max(guess, least), most);
    for (let i = 0; i < 200; i++) {
      this.at(x);
      if (this.surplus === 0) return x;
      if (this.surplus < 0) below = x;
      else above = x;
      const newton = x - this.surplus / this.slope;
      const next = newton > below && newton < above ? newton : (below + above) / 2;
      if (Math.abs(next - x) <= 1e-13 * Math.abs(x) + 1e-15) return next;
      x = next;
    }
    return x;
  }
}

/** Where the ionic strength that is put in comes out again to this part, it is that of the solution. */
const sameStrength = 1e-10;

/**
 * The pH of a mixture. The charges of all ions add up to nothing; each acid is what its concentration and its constants say; where activity
 * coefficients count, the ionic strength is that of the ions which come out. Holds from 10⁻⁹ to 10 mol/L; beyond an ionic strength of
 * 0.5 mol/L the activity coefficients are those of 0.5 mol/L, and it says so.
 *
 * @param near A solution that is much like it, as the point before on a curve: found sooner from there.
 */
export function solvePH(mixture: Mixture, setting: Setting, near?: SolvedPH): SolvedPH {
  const bounded = (strength: number) => Math.min(strength, mostIonicStrength);
  let x = near ? Math.log(near.h) : -7 * Math.LN10;
  if (setting.activity === "none") {
    const balance = new ChargeBalance(mixture, 0, setting);
    x = balance.solve(x);
    return { pH: -x / Math.LN10, h: Math.exp(x), ionicStrength: balance.ionicStrength, beyondDavies: false };
  }
  let put = bounded(near?.ionicStrength ?? 0);
  for (let i = 0; ; i++) {
    const logGamma = logGammaOfOne(put, setting.celsius);
    const balance = new ChargeBalance(mixture, logGamma, setting);
    x = balance.solve(x);
    const { ionicStrength } = balance;
    const next = bounded(ionicStrength);
    if (i === 60 || Math.abs(next - put) <= sameStrength * Math.max(next, 1e-7)) {
      const pH = -(x / Math.LN10 + logGamma);
      return { pH, h: Math.exp(x), ionicStrength, beyondDavies: ionicStrength > mostIonicStrength };
    }
    put = next;
  }
}
