import { expect, test } from "@jest/globals";
import type { Method } from "~/core/run";
import { methods } from "~/catalog/methods";
import { titer, type TypedStage, typedRun } from "~/catalog/tests/typed-run";
import { readRunRecord, reportOf } from "./run-report";

interface Example {
  readonly method: string;
  readonly stages: Readonly<Record<string, TypedStage>>;
  /** Stage, symbol where it is not the main one, and the value worked out by hand in that result's unit. */
  readonly found: readonly (readonly [stage: string, symbol: string | null, value: number])[];
}

const weighed = (grams: number, final: string) =>
  ({ "m:mass.before": (2 + grams).toFixed(4), "m:mass.after": "2.0000", ...titer(final) }) as const;
const taken = (symbol: string, ml: string, final: string) =>
  ({ [`${symbol}:volume.taken`]: ml, ...titer(final) }) as const;

/*
 * One worked example for each method, from the definition of the quantity alone. Molar masses: IUPAC 2021 (CHECKS.md). Where a
 * figure is of the trade, it says so.
 */
const examples: readonly Example[] = [
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
      dilute: { once: { "V_0:burette.initial": "0.00", "V_0:burette.final": "10.00" } },
      check: { once: { "c_t:given": "0.20" }, trials: [taken("V_a", "10.00", "19.90")] },
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
      determine: { trials: [taken("V_w", "100.00", "2.30")] },
    },
    // 0.23 mmol of acid in 0.1 L; half as many moles of calcium carbonate, 100.086 g/mol
    found: [
      ["determine", null, (2 * 0.1325 * 1000 * 0.023) / 105.988 / 0.025],
      ["determine", "A_c", (0.1325 * 1000 * 0.023 * 100.086) / 105.988 / 0.025],
      ["determine", "A_e", (2 * 0.1325 * 1000 * 0.023) / 105.988 / 0.025],
    ],
  },
  {
    // The acid is 2 · 0.1325 / 105.988 / 0.02500 = 0.100011 mol/L; one carbonate takes one acid to pH 8.3.
    method: "alkalinity-in-two-steps",
    stages: {
      standardize: { once: { "P:purity": "100.00" }, trials: [weighed(0.1325, "25.00")] },
      phenolphthalein: { trials: [taken("V_w", "100.00", "0.80")] },
      determine: { trials: [taken("V_w", "100.00", "2.30")] },
    },
    found: [
      ["phenolphthalein", null, (2 * 0.1325 * 1000 * 0.008) / 105.988 / 0.025],
      ["determine", null, (2 * 0.1325 * 1000 * 0.023) / 105.988 / 0.025],
    ],
  },
  {
    // 0.3041 g of 2-hydroxy-2-phenylethanoic acid, 152.149 g/mol, is 1.9987 mmol: 20.00 mL of 0.09994 mol/L.
    method: "weak-acid-by-ph-meter",
    stages: { determine: { trials: [{ ...weighed(0.3041, "20.00"), "pH_h:pH": "3.37" }] } },
    found: [
      ["determine", null, 152.05],
      ["determine", "M_a", 152.05],
      ["determine", "pK_a", 3.37],
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
      determine: { trials: [taken("V_a", "100.00", "8.00")] },
    },
    found: [
      ["standardize", null, (0.002 * 25 * 6) / 24],
      ["determine", null, (((0.0125 * 8) / 4) * 31.998 * (300 / 296)) / 0.1],
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
    // 1 °dH = 0.1783 mmol/L, 1 °fH = 0.1 mmol/L, 1 °e = 14.25 mg/L CaCO3 (CHECKS.md); the EDTA is 0.0099994 mol/L.
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
      ["total", "e_h", ((0.2502 / 0.25) * 1000 * 0.9) / 14.25],
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

test.each(examples.map((e) => [e.method, e] as const))("%s: its worked example", (id, { stages, found }) => {
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
    // Published molar masses have five or six digits.
    expect(result!.value / expected).toBeCloseTo(1, 4);
  }
  expect(report.stages.map(({ key, done }) => [key, done])).toEqual(
    report.stages.map(({ key }) => [key, true]),
  );
});

test("every method of the library has a worked example", () => {
  expect(examples.map((e) => e.method).sort()).toEqual(methods.map((m) => m.id).sort());
});
