import type { AcidSystem } from "~/core/equilibria";

/** An acid, a base or what is both, with its constants. */
export interface KnownAcid extends AcidSystem {
  readonly key: string;
  readonly name: string;
  /** The form with all its protons. */
  readonly formula: string;
  readonly source: string;
}

const handbook = "handbook, from memory; at 25 °C and zero ionic strength";
const step = (pKa: number, enthalpyKJ?: number) => (enthalpyKJ === undefined ? { pKa } : { pKa, enthalpyKJ });

/**
 * Constants at 25 °C and zero ionic strength, with enthalpies in kJ/mol. The constants of the shared check values are used as they stand
 * there; the others, and all enthalpies, are from memory.
 */
export const acids: readonly KnownAcid[] = [
  { key: "acetic", name: "acetic acid", formula: "CH3COOH", charge: 0, steps: [step(4.756, -0.4)] },
  { key: "formic", name: "formic acid", formula: "HCOOH", charge: 0, steps: [step(3.745, -0.1)] },
  { key: "benzoic", name: "benzoic acid", formula: "C6H5COOH", charge: 0, steps: [step(4.204, 0.5)] },
  { key: "lactic", name: "lactic acid", formula: "C3H6O3", charge: 0, steps: [step(3.86, -0.3)] },
  { key: "boric", name: "boric acid", formula: "H3BO3", charge: 0, steps: [step(9.24, 13.8)] },
  { key: "salicylic", name: "salicylic acid", formula: "C7H6O3", charge: 0, steps: [step(2.97), step(13.7)] },
  { key: "malonic", name: "malonic acid", formula: "C3H4O4", charge: 0, steps: [step(2.847), step(5.696)] },
  {
    key: "succinic",
    name: "succinic acid",
    formula: "C4H6O4",
    charge: 0,
    steps: [step(4.207, 3), step(5.636, -0.5)],
  },
  {
    key: "maleic",
    name: "maleic acid",
    formula: "C4H4O4",
    charge: 0,
    steps: [step(1.92, 1.1), step(6.27, -3.6)],
  },
  {
    key: "phthalic",
    name: "phthalic acid",
    formula: "C8H6O4",
    charge: 0,
    steps: [step(2.95, -2.7), step(5.408, -2.2)],
  },
  {
    key: "tartaric",
    name: "tartaric acid",
    formula: "C4H6O6",
    charge: 0,
    steps: [step(3.036, 3.2), step(4.366, 0.9)],
  },
  {
    key: "oxalic",
    name: "oxalic acid",
    formula: "H2C2O4",
    charge: 0,
    steps: [step(1.25, -3.3), step(4.27, -6.6)],
  },
  {
    key: "carbonic",
    name: "carbonic acid",
    formula: "H2CO3",
    charge: 0,
    steps: [step(6.35, 9.15), step(10.33, 14.7)],
  },
  { key: "sulfuric", name: "hydrogen sulfate", formula: "HSO4-", charge: -1, steps: [step(1.99, -22.4)] },
  {
    key: "phosphoric",
    name: "phosphoric acid",
    formula: "H3PO4",
    charge: 0,
    steps: [step(2.148, -8), step(7.198, 3.6), step(12.35, 16)],
  },
  {
    key: "citric",
    name: "citric acid",
    formula: "C6H8O7",
    charge: 0,
    steps: [step(3.128, 4.1), step(4.761, 2.2), step(6.396, -3.4)],
  },
  { key: "ammonium", name: "ammonium", formula: "NH4+", charge: 1, steps: [step(9.25, 52)] },
  { key: "trisH", name: "tris, protonated", formula: "C4H12NO3+", charge: 1, steps: [step(8.07, 47.5)] },
  {
    key: "glycine",
    name: "glycine, protonated",
    formula: "C2H6NO2+",
    charge: 1,
    steps: [step(2.351, 4), step(9.78, 44.2)],
  },
  {
    key: "edta",
    name: "EDTA, protonated",
    formula: "H6Y^2+",
    charge: 2,
    steps: [step(0), step(1.5), step(2), step(2.69), step(6.13), step(10.37)],
  },
].map((acid) => ({ ...acid, source: handbook }));

/** An acid of the table by its key. */
export function acidOf(key: string): KnownAcid {
  const found = acids.find((acid) => acid.key === key);
  if (!found) throw new Error(`There is no acid ${key} in the table`);
  return found;
}
