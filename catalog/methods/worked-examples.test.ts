import { expect, test } from "@jest/globals";
import { inUnit } from "~/core/quantity";
import { evaluateRun, type Method, resultQuantity, type RunRecord } from "~/core/run";
import { titer, type TypedStage, typedRun } from "../tests/typed-run";
import { methods } from ".";

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
];

function value(record: RunRecord, key: string, symbol: string | null): number {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  if (!stage || stage.kind === "conclude") throw new Error(`no stage ${key}`);
  if (symbol === null) return inUnit(resultQuantity(stage)!, stage.definition.result.unit);
  const beside = stage.also.find((a) => a.definition.symbol === symbol)!;
  return inUnit(beside.quantity, beside.definition.unit);
}

test.each(examples.map((e) => [e.method, e] as const))("%s: its worked example", (id, { stages, found }) => {
  const method = methods.find((m) => m.id === id) as Method;
  const record = typedRun(method, stages, {
    agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" },
  });
  for (const [stage, symbol, expected] of found) {
    expect(value(record, stage, symbol) / expected).toBeCloseTo(1, 6);
  }
  expect(
    evaluateRun(record)
      .stages.filter((s) => s.kind !== "conclude")
      .every((s) => s.done),
  ).toBe(true);
});

test("every method of the library has a worked example", () => {
  expect(examples.map((e) => e.method).sort()).toEqual(methods.map((m) => m.id).sort());
});
