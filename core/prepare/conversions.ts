import { molarMass } from "../chemistry";

export interface ConcentrationForms {
  readonly molPerL: number;
  /** mol/L times equivalents a mole. */
  readonly normality: number;
  readonly gPerL: number;
  /** g in 100 mL. */
  readonly percentWV: number;
  readonly mgPerL: number;
  /** By the solution's density; null where it is not known. */
  readonly percentWW: number | null;
  /** mg/kg, by the solution's density; null where it is not known. */
  readonly ppm: number | null;
}

export type ConcentrationUnit = "mol/L" | "N" | "g/L" | "% w/v" | "mg/L" | "% w/w" | "ppm";

export interface Conversion {
  readonly formula: string;
  readonly value: number;
  readonly unit: ConcentrationUnit;
  readonly equivalents: number;
  readonly densityGPerMl: number | null;
}

/**
 * One concentration in all its forms. Mass fractions need the density ρ of the solution in g/mL: w = γ / ρ; null is
 * returned where one is asked from it without a density. Throws on a formula that does not parse.
 */
export function convertConcentration(conversion: Conversion): ConcentrationForms | null {
  const { formula, value, unit, equivalents, densityGPerMl } = conversion;
  const m = molarMass(formula).value;
  const gPerLOf = (): number | null => {
    switch (unit) {
      case "mol/L":
        return value * m;
      case "N":
        return (value / equivalents) * m;
      case "g/L":
        return value;
      case "% w/v":
        return value * 10;
      case "mg/L":
        return value / 1000;
      case "% w/w":
        return densityGPerMl === null ? null : value * 10 * densityGPerMl;
      case "ppm":
        return densityGPerMl === null ? null : (value / 1000) * densityGPerMl;
    }
  };
  const gPerL = gPerLOf();
  if (gPerL === null) return null;
  const molPerL = gPerL / m;
  return {
    molPerL,
    normality: molPerL * equivalents,
    gPerL,
    percentWV: gPerL / 10,
    mgPerL: gPerL * 1000,
    percentWW: densityGPerMl === null ? null : gPerL / 10 / densityGPerMl,
    ppm: densityGPerMl === null ? null : (gPerL * 1000) / densityGPerMl,
  };
}
