import type { KnownCouple } from "~/core/plan";

/* Oxidants and reductants, with the potentials of their couples. */

interface CoupleOfTable extends Omit<KnownCouple, "moles" | "beside" | "put" | "usualPH"> {
  readonly beside?: number;
  readonly usualPH?: number;
  /** What brings the oxidized or the reduced form into the solution, and how many of it. */
  readonly oxidized?: Readonly<Record<string, number>>;
  readonly reducedForm?: Readonly<Record<string, number>>;
  readonly source: string;
}

const checked = "CHECKS.md (handbook, from memory)";
const remembered = "from memory";

/** Standard potentials at 25 °C, V. Iron's is that in sulfuric acid of 1 mol/L. */
export const couples: readonly CoupleOfTable[] = [
  {
    ...{ key: "permanganate", volts: 1.507, electrons: 5, protons: 8, reduced: 1 },
    oxidized: { "MnO4-": 1, KMnO4: 1 },
    source: checked,
  },
  {
    ...{ key: "dichromate", volts: 1.36, electrons: 6, protons: 14, reduced: 2 },
    oxidized: { K2Cr2O7: 1, "Cr2O7^2-": 1 },
    source: remembered,
  },
  {
    ...{ key: "cerium", volts: 1.44, electrons: 1, protons: 0, reduced: 1 },
    oxidized: { "Ce^4+": 1 },
    source: remembered,
  },
  {
    ...{ key: "iron", volts: 0.68, electrons: 1, protons: 0, reduced: 1 },
    reducedForm: { "Fe^2+": 1, FeSO4: 1 },
    source: remembered,
  },
  {
    ...{ key: "iodine", volts: 0.536, electrons: 2, protons: 0, reduced: 2, beside: 0.1, usualPH: 2 },
    // Iodate sets three of iodine free from iodide in acid.
    oxidized: { I2: 1, KIO3: 3 },
    source: checked,
  },
  {
    ...{ key: "thiosulfate", volts: 0.08, electrons: 2, protons: 0, reduced: 2, usualPH: 2 },
    reducedForm: { "S2O3^2-": 1, Na2S2O3: 1 },
    source: remembered,
  },
  {
    ...{ key: "oxalate", volts: -0.49, electrons: 1, protons: 1, reduced: 0.5 },
    reducedForm: { "C2O4^2-": 1, Na2C2O4: 1, H2C2O4: 1 },
    source: remembered,
  },
  {
    ...{ key: "peroxide", volts: 0.695, electrons: 2, protons: 2, reduced: 1 },
    reducedForm: { H2O2: 1 },
    source: remembered,
  },
  {
    ...{ key: "sulfite", volts: 0.17, electrons: 2, protons: 4, reduced: 1 },
    reducedForm: { SO2: 1 },
    source: remembered,
  },
  {
    ...{ key: "ascorbic", volts: 0.39, electrons: 2, protons: 2, reduced: 1 },
    reducedForm: { C6H8O6: 1 },
    source: remembered,
  },
  {
    ...{ key: "tin", volts: 0.15, electrons: 2, protons: 0, reduced: 1 },
    reducedForm: { "Sn^2+": 1 },
    source: remembered,
  },
];
