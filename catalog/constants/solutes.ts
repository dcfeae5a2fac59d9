import type { Mixture } from "~/core/equilibria";
import { acidOf } from "./acids";

/** What one mole of a substance brings into a solution: acids with all their forms, and ions that take no part. */
interface Solute {
  /** Acids of the table by their keys, and how many moles of each. */
  readonly acids?: Readonly<Record<string, number>>;
  /** Charge of the ions that take no part: +1 for the sodium of NaOH. */
  readonly ions?: number;
}

const solutes: Readonly<Record<string, Solute>> = {
  HCl: { ions: -1 },
  HNO3: { ions: -1 },
  H2SO4: { acids: { sulfuric: 1 } },
  NaOH: { ions: 1 },
  KOH: { ions: 1 },
  NH3: { acids: { ammonium: 1 } },
  CH3COOH: { acids: { acetic: 1 } },
  HCOOH: { acids: { formic: 1 } },
  C6H5COOH: { acids: { benzoic: 1 } },
  C3H6O3: { acids: { lactic: 1 } },
  C6H8O7: { acids: { citric: 1 } },
  C4H6O6: { acids: { tartaric: 1 } },
  H2C2O4: { acids: { oxalic: 1 } },
  H3PO4: { acids: { phosphoric: 1 } },
  KHC8H4O4: { acids: { phthalic: 1 }, ions: 1 },
  "HCO3-": { acids: { carbonic: 1 }, ions: 1 },
  NaHCO3: { acids: { carbonic: 1 }, ions: 1 },
  Na2CO3: { acids: { carbonic: 1 }, ions: 2 },
};

/** A substance in solution, mol/L; null where its constants are not in the table. */
export function dissolved(formula: string, concentration: number): Mixture | null {
  const solute = Object.hasOwn(solutes, formula) ? solutes[formula] : undefined;
  if (!solute) return null;
  const { acids = {}, ions = 0 } = solute;
  return {
    acids: Object.entries(acids).map(([key, moles]) => ({
      acid: acidOf(key),
      concentration: moles * concentration,
    })),
    // Each by itself, as monovalent ions are: so they count for the ionic strength.
    ions: ions === 0 ? [] : [{ charge: Math.sign(ions), concentration: Math.abs(ions) * concentration }],
  };
}
