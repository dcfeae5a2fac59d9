import type { Plausibility } from "~/core/method";

/* What results can be. Solubilities and pure liquids near 20 °C: handbook, from memory, rounded up. */

/** A difference, or what is read off a line: not below zero. */
export const notNegative = (symbol: string, unit: string): Plausibility => ({
  rule: "between",
  symbol,
  from: 0,
  unit,
});

/** A concentration: no more than water holds, or than the pure liquid is. */
export const atMost = (symbol: string, to: number, unit = "mol/L"): Plausibility => ({
  rule: "between",
  symbol,
  from: 0,
  to,
  unit,
});

/** The most that solutions of the bench can hold, mol/L. */
export const mostMolPerL = {
  NaOH: 20,
  HCl: 12.5,
  H2SO4: 18.8,
  CH3COOH: 17.5,
  H2O2: 43,
  NaClO: 5,
  KMnO4: 0.41,
  KHC8H4O4: 0.5,
  KIO3: 0.5,
  K2Cr2O7: 0.5,
  Na2S2O3: 4,
  iron: 0.8,
  EDTA: 0.4,
  metal: 6,
} as const;

/** A content: at most all of it, or what the pure substance holds. */
export const atMostAll = (symbol: string, all?: string, of?: string): Plausibility => ({
  rule: "at most all",
  symbol,
  ...(all === undefined ? {} : { all }),
  ...(of === undefined ? {} : { of }),
});

/** Outside this a method does not hold. */
export const validFor = (symbol: string, from: number, to: number, unit: string): Plausibility => ({
  rule: "between",
  symbol,
  from,
  to,
  unit,
  outside: "invalid",
});
