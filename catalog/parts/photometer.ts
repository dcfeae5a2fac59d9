import { about, mL } from "./reagents";
import type { Input } from "~/core/inputs";
import type { Method } from "~/core/method";

/*
 * What the methods of the photometer share: the wavelength from a scan, the cuvette and how it is handled, the stock that the
 * standards are made of.
 */

type Stage = Method["stages"][number];
type Steps = readonly string[];

export const cuvetteSteps: Steps = [
  "Let the instrument warm up. Zero it on the blank: the same reagents, the same water, nothing to measure.",
  "Read from dilute to strong: rinse the cuvette with the next solution, fill it, wipe it, the same side to the light.",
];

export const driftStep = "Recheck the blank and one standard at the end: a difference shows drift.";

export const colorimetricGlassware = [
  "photometer and matched 1 cm cuvettes",
  "volumetric flasks of one size",
  "graduated pipette or burette for the stock",
  "lint-free wipes",
];

/** The scan of a colored solution, and the wavelength that is taken for all readings. */
export const chooseWavelength = (usualNm: number, what: string): Stage => ({
  kind: "preparation",
  key: "wavelength",
  title: "Choose the wavelength",
  spectra: { usualNm },
  inputs: [{ symbol: "λ", is: "given", label: "Wavelength", unit: "nm", per: "run", exact: true }],
  relations: [{ relation: "λ_m = λ", title: "Wavelength of all readings", unit: "nm" }],
  result: { symbol: "λ_m", name: "Wavelength", unit: "nm" },
  reagents: [about(what, mL("3"), "one of the middle standards")],
  steps: [
    `Scan ${what} against the blank, from one end of the visible band to the other.`,
    `Take the wavelength of the largest absorbance, usually near ${usualNm} nm; not the color that the eye sees.`,
  ],
  cautions: ["Set the same wavelength for blank, standards and unknown."],
});

/** The concentration of the stock that all standards are made of. */
export const stock = (label: string, unit: string, value: string, plusMinus: string): Input => ({
  symbol: "c_0",
  is: "given",
  label,
  per: "run",
  unit,
  presumed: { value, plusMinus },
});

export const stockTaken = (capacityMl: number): Input => ({
  symbol: "V_s",
  is: "graduated",
  label: "Stock taken",
  of: "stock",
  per: "trial",
  glass: "graduated pipette",
  capacityMl,
});

export const standardFlask = (ml: string): Input => ({
  symbol: "V_f",
  is: "flask",
  label: "Made up to",
  of: "standard",
  per: "run",
  presumed: ml,
});

export const path: Input = {
  symbol: "l",
  is: "constant",
  label: "Path length of the cuvette",
  value: "1.000",
  unit: "cm",
  plusMinus: "0.005",
};

export const absorbance: Input = { symbol: "A", is: "absorbance", label: "Absorbance", per: "trial" };
/** The instrument is zeroed on the blank, so that it reads nothing. */
export const blank: Input = {
  symbol: "A_0",
  is: "blank",
  label: "Absorbance of the blank",
  per: "run",
  readings: "zeroed",
};

export const readOff = (symbol: string, label: string, of: string): Input => ({
  symbol,
  is: "read-off",
  label,
  of,
  per: "trial",
  stage: "standards",
  reading: "A",
});

export const sampleTaken = (presumed: string): Input => ({
  symbol: "V_u",
  is: "pipette",
  label: "Sample taken",
  of: "sample",
  per: "trial",
  presumed,
});

/** A limit or a specification, where there is one. */
export const limit = (unit: string): Input => ({
  symbol: "c_lim",
  is: "given",
  label: "Limit",
  unit,
  per: "run",
  optional: true,
});

export const straight = { intercept: "a", slope: "b", model: "line", weighting: "none" } as const;

/** The amount in each standard as a concentration, from the stock taken and the flask. */
export const madeUp = (name: string, unit: string) => ({
  symbol: "c",
  name,
  unit,
  relations: [{ relation: "c = c_0 * V_s / V_f", title: "Concentration of a standard", unit }],
});

export const colorSteps = (reagent: string, wait: string): string[] => [
  `Take 0, 2, 4, 6, 8 and 10 mL of the stock into flasks of one size; the first is the zero standard.`,
  `Add ${reagent} to each, make up to the mark, invert ten times, label.`,
  wait,
  ...cuvetteSteps,
  driftStep,
];
