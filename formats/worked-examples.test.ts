import { expect, test } from "@jest/globals";
import type { Method } from "~/core/method";
import { offered as methods } from "~/catalog/methods";
import {
  acidByBase,
  acidByCarbonatedBase,
  baseByAcid,
  branchPairs,
  chlorideBySilverCurve,
  ironByPermanganateCurve,
  type Pair,
  pairTexts,
  steps,
} from "~/core/testing/closed-curves";
import { titer, type Typed, type TypedStage, typedRun } from "~/core/testing/typed-run";
import { readRunRecord, reportOf } from "./run-report";

interface Example {
  readonly method: string;
  readonly stages: Readonly<Record<string, TypedStage>>;
  /** Stage, symbol where it is not the main one, and the value worked out by hand in that result's unit. */
  readonly found: readonly (readonly [stage: string, symbol: string | null, value: number])[];
  /** How close it comes, as a part; 5e-5 where nothing is said. */
  readonly within?: number;
}

const weighed = (grams: number, final: string) =>
  ({ "m:mass.before": (2 + grams).toFixed(4), "m:mass.after": "2.0000", ...titer(final) }) as const;
const taken = (symbol: string, ml: string, final: string) =>
  ({ [`${symbol}:volume.taken`]: ml, ...titer(final) }) as const;

/** Flasks of a calibration: what was taken for each, and the absorbance that a line gives it. */
const standards = (key: string, values: readonly string[], absorbance: (x: number) => number) =>
  values.map((value) => ({ [key]: value, "A:absorbance": absorbance(Number(value)).toFixed(6) }));

const unknown = (taken: Readonly<Record<string, string>>, absorbance: number) => ({
  ...taken,
  "A:absorbance": absorbance.toFixed(6),
});

const massOf = (grams: number) =>
  ({ "m:mass.before": (2 + grams).toFixed(4), "m:mass.after": "2.0000" }) as const;
/** A curve from zero, to more digits than a meter has. */
const curved = (symbol: string, pairs: readonly Pair[]) =>
  ({ [`${symbol}:burette.initial`]: "0.00", [`${symbol}:point`]: pairTexts(pairs, 8) }) as Typed;
/** At 20 °C, where water has pKw 14.167 (Harned and Owen, from memory). */
const beaker = (ml: number, titrant: number) => ({ ml, titrant, pKw: 14.1652 });

const wavelength = (nm: string) => ({ once: { "λ:given": nm } });
const series = ["0.00", "2.00", "4.00", "6.00", "8.00", "10.00"];

/*
 * One worked example for each method, from the definition of the quantity alone. Molar masses: IUPAC 2021 (CHECKS.md). Where a
 * figure is of the trade, it says so.
 */
const examples: Example[] = [
  {
    method: "base-by-phthalate-then-acid",
    stages: {
      standardize: { trials: [weighed(0.5106, "25.00")] },
      determine: { trials: [taken("V_a", "25.00", "20.00")] },
    },
    found: [
      ["standardize", null, 0.5106 / 204.222 / 0.025],
      ["determine", null, ((0.5106 / 204.222 / 0.025) * 20) / 25],
    ],
  },
  {
    method: "base-by-phthalate-solution",
    stages: {
      prepare: { once: { "m:mass.before": "7.1056", "m:mass.after": "2.0000" } },
      standardize: { trials: [taken("V_a", "25.00", "24.85")] },
    },
    found: [
      ["prepare", null, 5.1056 / 204.222 / 0.25],
      ["standardize", null, ((5.1056 / 204.222 / 0.25) * 25) / 24.85],
    ],
  },
  {
    // Common practice, no source: 22.4 mL of 0.100 mol/L base for 10 mL of acid: 0.224 mol/L.
    method: "acid-by-base",
    stages: { determine: { trials: [taken("V_a", "10.00", "22.40")] } },
    found: [["determine", null, 0.224]],
  },
  {
    method: "base-by-acid",
    stages: { determine: { trials: [taken("V_b", "25.00", "26.15")] } },
    found: [["determine", null, 0.1046]],
  },
  {
    method: "acid-by-carbonate-then-base",
    stages: {
      standardize: { once: { "P:purity": "100.00" }, trials: [weighed(0.1325, "25.00")] },
      determine: { trials: [taken("V_b", "25.00", "20.00")] },
    },
    // Two moles of acid for one of carbonate: 2 · 0.1325 / 105.988 / 0.02500
    found: [
      ["standardize", null, (2 * 0.1325) / 105.988 / 0.025],
      ["determine", null, ((2 * 0.1325) / 105.988 / 0.025) * 0.8],
    ],
  },
  {
    // Common practice, no source: 1 g of hydrogen carbonate against 27 mL of sulfuric acid: 0.22 mol/L.
    method: "acid-by-hydrogen-carbonate",
    stages: { determine: { once: { "P:purity": "100.00" }, trials: [weighed(1, "27.00")] } },
    found: [
      ["determine", null, 1 / 84.006 / 2 / 0.027],
      ["determine", "N_a", 1 / 84.006 / 0.027],
    ],
  },
  {
    method: "weak-acid-in-food",
    stages: { determine: { trials: [taken("V_a", "25.00", "22.40")] } },
    // 0.0896 mol/L in the flask, tenfold in the liquor; 60.052 g/mol; density 1.006 g/mL
    found: [
      ["determine", null, 0.896],
      ["determine", "γ", (0.896 * 60.052) / 10],
      ["determine", "w", (0.896 * 60.052) / 10 / 1.006],
    ],
  },
  {
    method: "diprotic-solid-acid",
    stages: { determine: { trials: [weighed(0.18, "24.00")] } },
    found: [
      ["determine", null, 75],
      ["determine", "M_a", 150],
    ],
  },
  {
    method: "dilute-and-check",
    stages: {
      dilute: {
        once: { "c_t:given": "0.20", "V_0:burette.initial": "0.00", "V_0:burette.final": "10.00" },
      },
      check: { trials: [taken("V_a", "10.00", "19.90")] },
    },
    found: [
      ["dilute", null, 0.2],
      ["check", null, 0.199],
    ],
  },
  {
    method: "alkalinity-of-water",
    stages: {
      standardize: { once: { "P:purity": "100.00" }, trials: [weighed(0.1325, "25.00")] },
      dilute: { once: { "V_s:volume.taken": "50.00", "V_f:volume.taken": "250.0" } },
      determine: { trials: [taken("V_w", "100.00", "11.50")] },
    },
    // The acid is diluted five-fold. 0.23 mmol of it in 0.1 L; half as many moles of calcium carbonate, 100.086 g/mol
    found: [
      ["dilute", null, (2 * 0.1325) / 105.988 / 0.025 / 5],
      ["determine", null, (2 * 0.1325 * 1000 * 0.023) / 105.988 / 0.025],
      ["determine", "A_c", (0.1325 * 1000 * 0.023 * 100.086) / 105.988 / 0.025],
      ["determine", "A_e", (2 * 0.1325 * 1000 * 0.023) / 105.988 / 0.025],
    ],
  },
  {
    // The acid is 2 · 0.1325 / 105.988 / 0.02500 = 0.100011 mol/L, diluted five-fold; one carbonate takes one acid to pH 8.3.
    method: "alkalinity-in-two-steps",
    stages: {
      standardize: { once: { "P:purity": "100.00" }, trials: [weighed(0.1325, "25.00")] },
      dilute: { once: { "V_s:volume.taken": "50.00", "V_f:volume.taken": "250.0" } },
      phenolphthalein: { trials: [taken("V_w", "100.00", "4.00")] },
      determine: { trials: [taken("V_w", "100.00", "11.50")] },
    },
    found: [
      ["phenolphthalein", null, (2 * 0.1325 * 1000 * 0.008) / 105.988 / 0.025],
      ["determine", null, (2 * 0.1325 * 1000 * 0.023) / 105.988 / 0.025],
    ],
  },
  {
    // 0.3041 g of 2-hydroxy-2-phenylethanoic acid, 152.149 g/mol, is 1.9987 mmol: 19.987 mL of 0.1000 mol/L.
    method: "weak-acid-by-ph-meter",
    stages: {
      determine: {
        trials: [
          {
            ...massOf(0.3041),
            ...curved(
              "E",
              acidByBase(beaker(100, 0.1), { molPerL: 0.019987, pKas: [3.41] }, steps(2.5, 11.4, 60)),
            ),
          },
        ],
      },
    },
    found: [
      ["determine", null, 152.149],
      ["determine", "M_a", 152.149],
      ["determine", "pK_1", 3.41],
    ],
  },
  {
    // 0.2000 g of tartaric acid, 150.086 g/mol, is 1.33257 mmol, with two protons each.
    method: "diprotic-acid-by-curve",
    stages: {
      determine: {
        trials: [
          {
            ...massOf(0.2),
            ...curved(
              "E",
              acidByBase(
                beaker(100, 0.1),
                { molPerL: 0.0133257, pKas: [3.036, 4.366] },
                steps(2.5, 11.4, 60),
              ),
            ),
          },
        ],
      },
    },
    found: [
      ["determine", null, 75.043],
      ["determine", "M_a", 150.086],
      ["determine", "z", 2],
      ["determine", "pK_1", 3.036],
      ["determine", "pK_2", 4.366],
    ],
  },
  {
    // 6 mmol/L of phosphoric acid and 0.4 mmol/L of a strong acid, 50 mL of them in 100 mL.
    method: "phosphoric-acid-in-a-drink",
    stages: {
      determine: {
        trials: [
          {
            "V_a:volume.taken": "50.00",
            ...curved(
              "E",
              acidByBase(
                beaker(100, 0.02),
                { molPerL: 0.003, pKas: [2.148, 7.199], strong: 0.0002 },
                steps(2.4, 10.9, 70),
              ),
            ),
          },
        ],
      },
    },
    found: [
      ["determine", null, 6],
      ["determine", "w_p", 6 * 97.994],
    ],
  },
  {
    // 0.12 mol/L of ammonia, 25 mL in 75 mL.
    method: "weak-base-by-curve",
    stages: {
      determine: {
        trials: [
          {
            "V_b:volume.taken": "25.00",
            ...curved(
              "E",
              baseByAcid(beaker(75, 0.1), { molPerL: 0.04, pKas: [9.246], sodium: 0 }, 1, steps(11, 2.7, 60)),
            ),
          },
        ],
      },
    },
    found: [
      ["determine", null, 0.12],
      ["determine", "pK_1", 9.246],
    ],
  },
  {
    // 0.03 mol/L of carbonate and 0.02 of hydrogen carbonate, 25 mL in 75 mL: a third of each, and 0.0267 of sodium.
    method: "carbonate-mixture-by-curve",
    stages: {
      determine: {
        trials: [
          {
            "V_s:volume.taken": "25.00",
            ...curved(
              "E",
              baseByAcid(
                beaker(75, 0.1),
                { molPerL: 0.05 / 3, pKas: [6.352, 10.329], sodium: 0.08 / 3 },
                0,
                steps(10.4, 2.7, 70),
              ),
            ),
          },
        ],
      },
    },
    found: [
      ["determine", null, 0.03],
      ["determine", "c_h", 0.02],
    ],
  },
  {
    // 2.5 mmol of acid by a base with 0.098 mol/L of hydroxide and 0.002 mol/L of carbonate.
    method: "carbonate-in-base-by-gran",
    stages: {
      determine: {
        trials: [
          {
            "V_a:volume.taken": "25.00",
            ...curved(
              "E",
              acidByCarbonatedBase(beaker(125, 0.098), 2.5, 0.002, [
                ...steps(1.7, 3.4, 40),
                ...steps(3.5, 11, 40),
                ...steps(11.05, 12.2, 40),
              ]),
            ),
          },
        ],
      },
    },
    found: [
      ["determine", null, 2],
      ["determine", "c_h", 0.098],
    ],
    // The line before the jump leaves out what little hydrogen carbonate there is.
    within: 0.01,
  },
  {
    // 0.6 g of citric acid in 100 mL, 192.123 g/mol: 6.246 mmol/L in the beaker, with three protons each.
    method: "acid-in-a-colored-drink",
    stages: {
      determine: {
        trials: [
          {
            "V_a:volume.taken": "20.00",
            ...curved(
              "E",
              acidByBase(
                beaker(100, 0.1),
                { molPerL: 1.2 / 192.123, pKas: [3.128, 4.761, 6.396] },
                steps(2.7, 11.4, 70),
              ),
            ),
          },
        ],
      },
    },
    found: [["determine", null, 0.6]],
  },
  {
    // The branches cross at 9.40 mL of 0.1000 mol/L: 0.94 mmol in 20.00 mL.
    method: "acid-by-conductance",
    stages: {
      determine: {
        trials: [
          {
            "V_a:volume.taken": "20.00",
            ...curved("G", branchPairs(200, 9.4, [2.1, 0.6, 0.13], steps(0, 18, 18))),
          },
        ],
      },
    },
    found: [["determine", null, 0.047]],
  },
  {
    // At 11.30 mL of 0.0500 mol/L: 0.565 mmol of copper in 25.00 mL, 63.546 g/mol.
    method: "copper-by-photometric-titration",
    stages: {
      determine: {
        trials: [
          {
            "V_s:volume.taken": "25.00",
            ...curved("A", branchPairs(100, 11.3, [0.06, 0.45, 0], steps(0, 22, 22))),
          },
        ],
      },
    },
    found: [
      ["determine", null, 22.6],
      ["determine", "w_c", 22.6 * 63.546],
    ],
  },
  {
    // 0.800 mmol of chloride in 25.00 mL: 16.00 mL of 0.0500 mol/L.
    method: "chloride-by-silver",
    stages: {
      determine: {
        trials: [
          {
            "V_w:volume.taken": "25.00",
            ...curved(
              "E",
              chlorideBySilverCurve(
                { ml: 100, titrant: 0.05 },
                0.8,
                { pKs: 9.74, zero: 602.6, slope: 58.17 },
                steps(153.31, 485.31, 166),
              ),
            ),
          },
        ],
      },
    },
    found: [
      ["determine", null, 32],
      ["determine", "w_c", 32 * 35.452],
    ],
    // Dilution moves the steepest place away from the end, by a thousandth of a milliliter.
    within: 1e-4,
  },
  {
    // 1.500 mmol of iron(II) in 25.00 mL: 15.00 mL of 0.02000 mol/L.
    method: "iron-by-potential",
    stages: {
      determine: {
        trials: [
          {
            "V_i:volume.taken": "25.00",
            ...curved(
              "E",
              ironByPermanganateCurve(
                0.02,
                1.5,
                { iron: 483, permanganate: 1313, pH: 0.3, slope: 58.17 },
                steps(380, 1270, 178),
              ),
            ),
          },
        ],
      },
    },
    found: [
      ["determine", null, 0.06],
      ["determine", "w_i", 0.06 * 55.845],
    ],
  },
  {
    // 0.45 mol/L at the start; each bottle keeps 0.4 of what went in; so 0.6 · 0.45 · V_0 is on the gram.
    method: "acetic-acid-on-charcoal",
    stages: {
      start: { trials: [taken("V_a", "10.00", "45.00")] },
      ...Object.fromEntries(
        [50, 40, 30, 20, 10].map((ml, i) => [
          `bottle-${i + 1}`,
          { once: { "m:mass.tared": "1.0000" }, trials: [taken("V_a", "10.00", (0.36 * ml).toFixed(2))] },
        ]),
      ),
    },
    found: [
      ["start", null, 0.45],
      ["bottle-1", null, 0.18],
      ["bottle-1", "q", 13.5],
      ["bottle-5", null, 0.036],
      ["bottle-5", "q", 2.7],
      ["bottle-5", "x", 2.7 * 60.052],
      // As much more is taken up as there is more acid: 13.5 mmol/g at 0.18 mol/L, 75 at 1 mol/L, and no more than that.
      ["isotherm", "K", 75],
      ["isotherm", "e", 1],
      ["isotherm", null, 7.5],
      ["isotherm", "x_r", 7.5 * 60.052],
    ],
  },
  {
    // 392.13 g/mol (CHECKS.md); one permanganate for five iron(II)
    method: "permanganate-by-iron",
    stages: {
      standardize: { once: { "P:purity": "100.00" }, trials: [weighed(0.7, "17.85")] },
    },
    found: [
      ["standardize", null, 0.7 / 392.13 / 5 / 0.01785],
      ["standardize", "N_p", 0.7 / 392.13 / 0.01785],
    ],
  },
  {
    method: "permanganate-by-iron-solution",
    stages: {
      prepare: { once: { "P:purity": "100.00", "m:mass.before": "11.8033", "m:mass.after": "2.0000" } },
      standardize: { trials: [taken("V_a", "25.00", "25.00")] },
    },
    found: [
      ["prepare", null, 9.8033 / 392.13 / 0.25],
      ["standardize", null, 9.8033 / 392.13 / 0.25 / 5],
    ],
  },
  // 133.998 g/mol (CHECKS.md); two permanganate for five oxalate
  ...["permanganate-by-oxalate", "permanganate-by-hot-oxalate"].map((method): Example => ({
    method,
    stages: { standardize: { once: { "P:purity": "100.00" }, trials: [weighed(0.2, "29.85")] } },
    found: [["standardize", null, ((0.2 / 133.998) * 2) / 5 / 0.02985]],
  })),
  {
    // 1 mL of 0.0200 mol/L permanganate is 5.585 mg of iron (CHECKS.md, rounded from 5.5845): 20.00 mL in a tenth of the whole, 1.117 g.
    method: "iron-in-solution",
    stages: {
      standardize: { once: { "P:purity": "100.00" }, trials: [weighed(0.78426, "20.00")] },
      determine: { trials: [taken("V_a", "25.00", "20.00")] },
    },
    found: [
      ["standardize", null, 0.7843 / 392.13 / 5 / 0.02],
      ["determine", null, ((0.7843 / 392.13 / 5 / 0.02) * 5.5845 * 20 * 10) / 20],
    ],
  },
  {
    method: "peroxide-by-volume",
    stages: { determine: { trials: [taken("V_a", "25.00", "17.60")] } },
    // 0.02 · 17.60 · 5/2 = 0.88 mmol in 25 mL; 25-fold dilution; 34.014 g/mol
    found: [
      ["determine", null, 0.88],
      ["determine", "γ", 2.993232],
    ],
  },
  {
    method: "peroxide-by-mass",
    stages: {
      determine: {
        trials: [{ "m:mass.before": "80.0000", "m:mass.after": "81.0000", ...titer("17.60") }],
      },
    },
    found: [["determine", null, 2.993232]],
  },
  {
    method: "oxalate-in-solid",
    stages: { determine: { trials: [weighed(0.25, "20.00")] } },
    // 0.02 · 20 · 5/2 = 1.000 mmol; C2O4: 88.018, Na2C2O4: 133.998 g/mol
    found: [
      ["determine", null, 35.2072],
      ["determine", "w_s", 53.5992],
    ],
  },
  {
    method: "oxidation-number-of-iron",
    stages: { determine: { trials: [taken("V_a", "25.00", "25.10")] } },
    found: [["determine", null, 1.004]],
  },
  {
    // 0.0500 · 25.00 = 1.25 mmol of oxalate; 5 · 0.02 · 24.90 = 2.49 mmol of electrons.
    method: "oxidation-number-of-oxalate",
    stages: {
      determine: {
        trials: [{ "V_a:burette.initial": "0.00", "V_a:burette.final": "25.00", ...titer("24.90") }],
      },
    },
    found: [["determine", null, 1.992]],
  },
  {
    // 0.1 · 24.00 = 2.4 mmol in 25 mL, ten times that in the flask, 63.546 g/mol.
    method: "copper-in-solution",
    stages: { determine: { trials: [taken("V_a", "25.00", "24.00")] } },
    found: [
      ["determine", null, 2.4 * 10 * 0.063546],
      ["determine", "c_f", 0.096],
    ],
  },
  {
    // 0.1000 · 25.00 / 20.00, then a tenth, a fifth and a tenth of a stock of 1.000 mol/L.
    method: "acid-in-burette",
    stages: { determine: { trials: [taken("V_b", "25.00", "20.00")] } },
    found: [["determine", null, 0.125]],
  },
  {
    method: "dilution-in-steps",
    stages: {
      first: { once: { "c_0:given": "1.000", "V_1:volume.taken": "25.00", "V_2:volume.taken": "250.0" } },
      second: { once: { "V_1:volume.taken": "50.00", "V_2:volume.taken": "250.0" } },
      third: { once: { "V_1:volume.taken": "25.00", "V_2:volume.taken": "250.0" } },
    },
    found: [
      ["first", null, 0.1],
      ["second", null, 0.02],
      ["third", null, 0.002],
    ],
  },
  {
    method: "acid-by-cylinder",
    stages: { determine: { trials: [taken("V_a", "20.0", "18.40")] } },
    found: [["determine", null, 0.092]],
  },
  {
    // 50 drops of a twentieth of a milliliter are 2.5 mL; 0.1 · 21.25 = 2.125 mmol; 60.052 g/mol.
    method: "weak-acid-in-drops",
    stages: { determine: { trials: [{ "V_a:drops": "50", ...titer("21.25") }] } },
    found: [
      ["determine", null, 0.85],
      ["determine", "γ", 0.85 * 6.0052],
    ],
  },
  {
    method: "oxidation-number-of-tin",
    stages: { determine: { trials: [taken("V_a", "10.00", "19.80")] } },
    found: [["determine", null, 1.98]],
  },
  {
    // 1 mL of 0.0100 mol/L iodine is 0.641 mg of SO2 (CHECKS.md, rounded from 0.6406).
    method: "sulfur-dioxide",
    stages: { determine: { trials: [taken("V_a", "20.00", "4.00")] } },
    found: [["determine", null, (0.6406 * 4) / 0.02]],
  },
  {
    // 214.00 g/mol (CHECKS.md); six thiosulfate for one iodate
    method: "thiosulfate-by-iodate",
    stages: {
      prepare: { once: { "P:purity": "100.00", "m:mass.before": "2.8917", "m:mass.after": "2.0000" } },
      standardize: { trials: [taken("V_a", "25.00", "25.00")] },
    },
    found: [
      ["prepare", null, 0.8917 / 214.0 / 0.25],
      ["standardize", null, (6 * 0.8917) / 214.0 / 0.25],
    ],
  },
  {
    // 294.181 g/mol (CHECKS.md); six thiosulfate for one dichromate
    method: "thiosulfate-by-dichromate",
    stages: {
      prepare: { once: { "P:purity": "100.00", "m:mass.before": "3.2258", "m:mass.after": "2.0000" } },
      standardize: { trials: [taken("V_a", "25.00", "25.00")] },
    },
    found: [["standardize", null, (6 * 1.2258) / 294.181 / 0.25]],
  },
  {
    // Four thiosulfate for one oxygen; 31.998 g/mol; the reagents pushed 4 of 300 mL out.
    method: "dissolved-oxygen",
    stages: {
      prepare: { once: { "P:purity": "100.00", "m:mass.before": "2.1070", "m:mass.after": "2.0000" } },
      standardize: { trials: [taken("V_a", "25.00", "24.00")] },
      determine: { trials: [taken("V_a", "200.00", "16.00")] },
    },
    found: [
      ["standardize", null, (0.002 * 25 * 6) / 24],
      ["determine", null, (((0.0125 * 16) / 4) * 31.998 * (300 / 296)) / 0.2],
    ],
  },
  {
    method: "hypochlorite",
    stages: { determine: { trials: [taken("V_a", "25.00", "13.00")] } },
    // 0.65 mmol in 25 mL, 25-fold: 0.65 mol/L; NaClO 74.44, Cl2 70.90 g/mol
    found: [
      ["determine", null, 0.65],
      ["determine", "γ_n", 4.8386],
      ["determine", "γ_c", 4.6085],
    ],
  },
  {
    // One thiosulfate for one copper; CuSO4·5H2O (249.68 g/mol, CHECKS.md) is 25.45 % copper.
    method: "copper-by-iodine",
    stages: { determine: { trials: [weighed(0.6242, "25.00")] } },
    found: [["determine", null, (2.5 * 63.546) / 6.242]],
  },
  {
    method: "ascorbic-acid-by-iodine",
    stages: { determine: { trials: [taken("V_a", "25.00", "17.00")] } },
    // 0.17 mmol · 176.124 g/mol
    found: [
      ["determine", "m_a", 29.94108],
      ["determine", null, 1197.6432],
    ],
  },
  {
    method: "ascorbic-acid-by-iodate",
    stages: { determine: { trials: [taken("V_a", "25.00", "14.00")] } },
    // three iodine for one iodate: 3 · 0.056 mmol
    found: [["determine", "m_a", 0.168 * 176.124]],
  },
  {
    // f = 1.000 at p = 50 (ISO 302 / TAPPI T 236): (49 - 24) · 0.2 / 0.1 = 50 mL; 2.0000 g at 25 °C: kappa 25.
    method: "kappa-number",
    stages: {
      blank: { trials: [titer("49.00")] },
      determine: { trials: [{ "w:mass.tared": "2.0000", "t:temperature": "25.0", ...titer("24.00") }] },
    },
    found: [
      ["determine", null, 25],
      ["determine", "p", 50],
    ],
  },
  {
    // 100.086 g/mol, one to one
    method: "edta-by-calcium-carbonate",
    stages: {
      prepare: { once: { "P:purity": "100.00", "m:mass.before": "2.2502", "m:mass.after": "2.0000" } },
      standardize: { trials: [taken("V_a", "25.00", "25.00")] },
    },
    found: [["standardize", null, 0.2502 / 100.086 / 0.25]],
  },
  {
    // Zinc, 65.38 g/mol
    method: "edta-by-zinc",
    stages: {
      prepare: { once: { "P:purity": "100.00", "m:mass.before": "2.1635", "m:mass.after": "2.0000" } },
      standardize: { trials: [taken("V_a", "25.00", "25.00")] },
    },
    found: [["standardize", null, 0.1635 / 65.38 / 0.25]],
  },
  {
    // 1 °dH = 0.1783 mmol/L, 1 °fH = 0.1 mmol/L, 1 °e = 14.254 mg/L CaCO3 (CHECKS.md); the EDTA is 0.0099994 mol/L.
    method: "water-hardness",
    stages: {
      prepare: { once: { "P:purity": "100.00", "m:mass.before": "2.2502", "m:mass.after": "2.0000" } },
      standardize: { trials: [taken("V_a", "25.00", "25.00")] },
      total: {
        trials: [{ "V_s:burette.initial": "1.00", "V_s:burette.final": "26.00", ...titer("22.50") }],
      },
      calcium: {
        trials: [{ "V_s:burette.initial": "0.00", "V_s:burette.final": "25.00", ...titer("5.00") }],
      },
    },
    found: [
      ["total", null, (0.2502 / 100.086 / 0.25) * 1000 * 0.9],
      ["total", "γ_h", (0.2502 / 0.25) * 1000 * 0.9],
      ["total", "d_h", ((0.2502 / 100.086 / 0.25) * 1000 * 0.9) / 0.1783],
      ["total", "f_h", ((0.2502 / 100.086 / 0.25) * 1000 * 0.9) / 0.1],
      ["total", "e_h", ((0.2502 / 0.25) * 1000 * 0.9) / 14.254],
      ["calcium", null, (0.2502 / 100.086 / 0.25) * 1000 * 0.2],
      ["calcium", "c_m", (0.2502 / 100.086 / 0.25) * 1000 * 0.7],
    ],
  },
  // 25 mL of 0.05 mol/L EDTA take 25 mL of 0.05 mol/L zinc; 13 mL are left over: 0.6 mmol of metal in 10 mL.
  ...[["nickel-by-back-titration", 58.693] as const, ["aluminum-by-back-titration", 26.982] as const].map(
    ([method, gramsPerMol]): Example => ({
      method,
      stages: {
        blank: { trials: [taken("V_y", "25.00", "25.00")] },
        determine: {
          trials: [{ "V_s:volume.taken": "10.00", "V_y:volume.taken": "25.00", ...titer("13.00") }],
        },
      },
      found: [
        ["determine", null, 60],
        ["determine", "γ", 60 * gramsPerMol],
      ],
    }),
  ),
];

/* The photometer's methods: lines that are exact, so that what is read off them can be told beforehand. */
examples.push(
  {
    // 5 mg/L, 10 mL to 50 mL: 1 mg/L reads 0.7. An unknown that reads 0.315 holds 0.45 mg/L, diluted by half.
    method: "phosphate-as-molybdenum-blue",
    stages: {
      wavelength: wavelength("880"),
      standards: { trials: standards("V_s:volume.taken", series, (v) => 0.07 * v) },
      unknown: { trials: [unknown({ "V_u:volume.taken": "25.00" }, 0.315)] },
    },
    found: [
      ["standards", null, (0.7 * 30.974) / 1e-3],
      ["unknown", null, 0.9],
      ["unknown", "c_P", (0.9 * 94.97) / 30.974],
      ["unknown", "n_u", 900 / 30.974],
    ],
  },
  {
    method: "nitrite-as-azo-dye",
    stages: {
      wavelength: wavelength("540"),
      standards: { trials: standards("V_s:volume.taken", series, (v) => 0.07 * v) },
      unknown: { trials: [unknown({ "V_u:volume.taken": "25.00" }, 0.35)] },
    },
    found: [
      ["standards", null, (3.5 * 14.007) / 1e-3],
      ["unknown", null, 0.2],
      ["unknown", "c_N", (0.2 * 46.005) / 14.007],
    ],
  },
  {
    // The axis is kept in mL of stock: 5.5 mL of 2 g/L color as much, which is 11 mg.
    method: "copper-with-ammonia",
    stages: {
      wavelength: wavelength("620"),
      standards: { trials: standards("V_s:volume.taken", series.slice(1), (v) => 0.068 * v) },
      unknown: { trials: [unknown({ "V_u:volume.taken": "5.00" }, 0.374)] },
    },
    found: [
      ["standards", null, (0.068 * 25 * 63.546) / 2],
      ["unknown", null, 2.2],
      ["unknown", "m", 11],
    ],
  },
  {
    method: "iron-with-phenanthroline",
    stages: {
      wavelength: wavelength("510"),
      standards: { trials: standards("V_s:volume.taken", series, (v) => 0.08 * v) },
      unknown: { trials: [unknown({ "V_u:volume.taken": "25.00" }, 0.4)] },
    },
    found: [
      ["standards", null, (0.2 * 55.845) / 1e-3],
      ["unknown", null, 4],
    ],
  },
  {
    // The sample alone reads 0.24, each mg/L added 0.2: it holds 1.2 mg/L in the flask, 3 mg/L before.
    method: "iron-by-standard-addition",
    stages: {
      wavelength: wavelength("510"),
      additions: { trials: standards("V_s:volume.taken", series.slice(0, 5), (v) => 0.24 + 0.08 * v) },
    },
    found: [
      ["additions", "c_x", 1.2],
      ["additions", null, 3],
    ],
  },
  {
    // Common practice, no source: 20 drops to the mL; 15 drops of 10 % ethanol in 50 mL: 0.15 %.
    method: "ethanol-by-dichromate",
    stages: {
      drop: { once: { "m:mass.tared": "3.9360", "N:given": "80" } },
      wavelength: wavelength("600"),
      standards: { trials: standards("d:given", ["0", "5", "10", "15", "20"], (d) => 0.01 + 0.03 * d) },
      unknown: { trials: [unknown({ "d_u:given": "20" }, 0.46)] },
    },
    found: [
      ["drop", null, 0.05],
      ["drop", "f", 20],
      // 0.46 is the flask of 15 drops: 0.15 % in 50 mL, 7.5 % in the mL, 15 % in the drink.
      ["unknown", null, 15],
    ],
  },
  {
    // k' = 0.012 1/s in 0.1 mol/L, and twice that in twice as much.
    method: "fading-of-a-dye",
    stages: {
      wavelength: wavelength("590"),
      fading: {
        once: { "T:temperature": "21.0" },
        trials: [{ "c_B:given": "0.100" }, { "c_B:given": "0.200" }],
        courses: [0.012, 0.024].map((k) => {
          const x = Array.from({ length: 200 }, (_, t) => t);
          return { x, absorbance: x.map((t) => 0.9 * Math.exp(-k * t)) };
        }),
      },
    },
    found: [["fading", null, 0.12]],
  },
);

test.each(examples.map((e) => [e.method, e] as const))("%s: its worked example", (id, example) => {
  // Published molar masses have five or six digits.
  const { stages, found, within = 5e-5 } = example;
  const method = methods.find((m) => m.id === id) as Method;
  const record = typedRun(method, stages, {
    agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" },
  });
  // What bin/recompute does with a file: its text is read, checked and reported.
  const read = readRunRecord(JSON.parse(JSON.stringify(record)));
  if ("problems" in read) throw new Error(JSON.stringify(read.problems));
  const report = reportOf(read.record);
  for (const [key, symbol, expected] of found) {
    const stage = report.stages.find((s) => s.key === key)!;
    const result = symbol === null ? stage.result : stage.also.find((a) => a.symbol === symbol);
    expect(Math.abs(result!.value / expected - 1)).toBeLessThan(within);
  }
  expect(report.stages.map(({ key, done }) => [key, done])).toEqual(
    report.stages.map(({ key }) => [key, true]),
  );
});

test("every method of the library has a worked example", () => {
  expect(examples.map((e) => e.method).sort()).toEqual(methods.map((m) => m.id).sort());
});
