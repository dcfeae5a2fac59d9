import type { Mixture } from "~/core/equilibria";
import { msg, type Phrase } from "~/core/text";
import { acidOf } from "./acids";

/** What one mole of a substance brings into a solution: acids with all their forms, and ions that take no part. */
interface Solute {
  readonly name: Phrase;
  /** Acids of the table by their keys, and how many moles of each. */
  readonly acids?: Readonly<Record<string, number>>;
  /** Charge of the ions that take no part: +1 for the sodium of NaOH. */
  readonly ions?: number;
}

const solutes: Readonly<Record<string, Solute>> = {
  HCl: { name: msg`hydrochloric acid`, ions: -1 },
  HNO3: { name: msg`nitric acid`, ions: -1 },
  H2SO4: { name: msg`sulfuric acid`, acids: { sulfuric: 1 } },
  NaOH: { name: msg`sodium hydroxide`, ions: 1 },
  KOH: { name: msg`potassium hydroxide`, ions: 1 },
  NH3: { name: msg`ammonia`, acids: { ammonium: 1 } },
  CH3COOH: { name: msg`acetic acid`, acids: { acetic: 1 } },
  HCOOH: { name: msg`formic acid`, acids: { formic: 1 } },
  C6H5COOH: { name: msg`benzoic acid`, acids: { benzoic: 1 } },
  C3H6O3: { name: msg`lactic acid`, acids: { lactic: 1 } },
  C6H8O7: { name: msg`citric acid`, acids: { citric: 1 } },
  C4H6O6: { name: msg`tartaric acid`, acids: { tartaric: 1 } },
  H2C2O4: { name: msg`oxalic acid`, acids: { oxalic: 1 } },
  H3PO4: { name: msg`phosphoric acid`, acids: { phosphoric: 1 } },
  KHC8H4O4: { name: msg`potassium hydrogen phthalate`, acids: { phthalic: 1 }, ions: 1 },
  "HCO3-": { name: msg`hydrogen carbonate`, acids: { carbonic: 1 }, ions: 1 },
  "CO3^2-": { name: msg`carbonate`, acids: { carbonic: 1 }, ions: 2 },
  NaHCO3: { name: msg`sodium hydrogen carbonate`, acids: { carbonic: 1 }, ions: 1 },
  Na2CO3: { name: msg`sodium carbonate`, acids: { carbonic: 1 }, ions: 2 },
  H3BO3: { name: msg`boric acid`, acids: { boric: 1 } },
  C3H4O4: { name: msg`malonic acid`, acids: { malonic: 1 } },
  C4H6O4: { name: msg`succinic acid`, acids: { succinic: 1 } },
  C7H6O3: { name: msg`salicylic acid`, acids: { salicylic: 1 } },
  CH3COONa: { name: msg`sodium acetate`, acids: { acetic: 1 }, ions: 1 },
  NH4Cl: { name: msg`ammonium chloride`, acids: { ammonium: 1 }, ions: -1 },
  NaH2PO4: { name: msg`sodium dihydrogen phosphate`, acids: { phosphoric: 1 }, ions: 1 },
  Na2HPO4: { name: msg`disodium hydrogen phosphate`, acids: { phosphoric: 1 }, ions: 2 },
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

/** All substances of the table, by their names. */
export const soluteNames: readonly { readonly formula: string; readonly name: Phrase }[] = Object.entries(
  solutes,
).map(([formula, { name }]) => ({ formula, name }));
