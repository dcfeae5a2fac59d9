import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  burettePasses,
  ancestorsOf,
  convertConcentration,
  type DeliveringGlass,
  dependentsOf,
  evenLevels,
  type Making,
  makingMethod,
  massForSolution,
  planDilution,
  planSeries,
  typedRecord,
} from "~/core/prepare";
import { deliveryStepMl } from "~/core/measure";
import { inUnit, standardUncertainty } from "~/core/quantity";
import { evaluateRun } from "~/core/evaluate";
import { resultQuantity } from "~/core/stages";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { inEnglish } from "../text";
import { plain } from "../testing/plain";

const tenths = { capacityMl: 50, resolutionMl: 0.1 };
const burette = { kind: "burette" } as const;
const about = { houseRules: defaultHouseRules, at: "2026-11-25T09:00:00.000Z", person: "bench 1" };

function made(making: Making, typed: Record<string, string>) {
  const { record, problems } = typedRecord(makingMethod("NaOH", "base", making), typed, about);
  const [stage] = evaluateRun(record).stages;
  if (stage?.kind !== "preparation") throw new Error("no preparation");
  return { stage, problems, c: resultQuantity(stage) };
}

describe("a dilution", () => {
  /** Common practice, no source: 25 mL of 0.23 mol/L from 0.538 mol/L needs 10.687 mL (10.6877); read to tenths, 10.7 is delivered. */
  test("is rounded to what the burette delivers, and says what that makes", () => {
    const plan = planDilution({
      stock: 0.538,
      target: 0.23,
      volumeMl: 25,
      glass: burette,
      burette: tenths,
      startMl: 13.3,
    });
    expect(plain(plan)).toMatchObject({ ok: true, value: { deliveredMl: 10.7, stopMl: 24, cautions: [] } });
    if (!plan.ok) return;
    expect(plan.value.exactMl).toBeCloseTo(10.6877, 4);
    expect(plan.value.made).toBeCloseTo((0.538 * 10.7) / 25, 12);
  });

  test("takes the nearest one-mark pipette, and tells how far off that is", () => {
    const plan = planDilution({
      stock: 1,
      target: 0.11,
      volumeMl: 100,
      glass: { kind: "pipette" },
      burette: tenths,
    });
    expect(plain(plan)).toMatchObject({
      ok: true,
      value: { deliveredMl: 10, stopMl: null, cautions: ["It comes out 9.1 % below the target"] },
    });
  });

  test.each([
    ["a weaker stock", { stock: 0.1, target: 0.2 }, /weaker than the target/],
    ["too little to measure", { stock: 12, target: 0.0001 }, /less than this glass can measure/],
    [
      "more than the burette holds",
      { stock: 0.3, target: 0.2, volumeMl: 250 },
      /more than the 50 mL burette holds/,
    ],
    ["past the last mark", { stock: 0.538, target: 0.23, startMl: 45 }, /past the last mark at 50: refill/],
    ["no stock", { stock: 0, target: 0.23 }, /stock must be above zero/],
    [
      "a pipette larger than the flask",
      { stock: 1, target: 0.9, volumeMl: 1.4, glass: { kind: "pipette" } as const, burette: tenths },
      null,
    ],
  ])("refuses or plans %s", (_name, parts, message) => {
    const plan = planDilution({
      volumeMl: 25,
      glass: burette,
      burette: tenths,
      ...{ stock: 1, target: 0.1 },
      ...parts,
    });
    if (message)
      expect(plain(plan)).toMatchObject({ ok: false, problem: { message: expect.stringMatching(message) } });
    else expect(plain(plan)).toMatchObject({ ok: true, value: { deliveredMl: 1 } });
  });

  test("never delivers more than fits, and never misses by more than half a step", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 20, noNaN: true }),
        fc.double({ min: 0.001, max: 1, noNaN: true }),
        fc.constantFrom(25, 50, 100, 250),
        (stock, part, volumeMl) => {
          const plan = planDilution({
            stock,
            target: stock * part,
            volumeMl,
            glass: burette,
            burette: { capacityMl: 50, resolutionMl: 0.01 },
          });
          if (!plan.ok) return plan.problem.message !== "";
          const { exactMl, deliveredMl } = plan.value;
          return deliveredMl <= volumeMl && deliveredMl <= 50 && Math.abs(exactMl - deliveredMl) <= 0.0251;
        },
      ),
    );
  });

  test("makes a series from dilute to strong; a level above the stock is told, the others stand", () => {
    const series = planSeries(evenLevels(0.1, 0.5, 3), {
      stock: 0.4,
      volumeMl: 50,
      glass: burette,
      burette: { capacityMl: 50, resolutionMl: 0.01 },
    });
    expect(series.map(({ target, plan }) => [target, plan.ok ? plan.value.deliveredMl : "refused"])).toEqual([
      [0.1, 12.5],
      [0.3, 37.5],
      [0.5, "refused"],
    ]);
  });
});

describe("the mass for a solution", () => {
  /** Molar mass of KHC8H4O4 204.222 g/mol (CHECKS.md); common practice, no source: 4.8 to 5.4 g in 250 mL. */
  test("is c V M / P, with its window", () => {
    const plan = massForSolution({ formula: "KHC8H4O4", molPerL: 0.1, volumeMl: 250, purityPercent: 100 });
    if (!plan.ok) throw new Error(inEnglish(plan.problem.message));
    expect(plan.value.grams).toBeCloseTo(5.10555, 4);
    expect(plan.value.window.map((g) => g.toFixed(1))).toEqual(["4.8", "5.4"]);
  });

  test.each([
    [{ purityPercent: 101 }, /over 100 %/],
    [{ formula: "Xx2" }, /Xx/],
    [{ molPerL: 0 }, /concentration must be above zero/],
    [{ volumeMl: -1 }, /volume must be above zero/],
  ])("refuses %p", (wrong, message) => {
    const plan = massForSolution({
      formula: "NaCl",
      molPerL: 0.1,
      volumeMl: 250,
      purityPercent: 100,
      ...wrong,
    });
    expect(plain(plan)).toMatchObject({ ok: false, problem: { message: expect.stringMatching(message) } });
  });
});

describe("what a bottle was made by", () => {
  const salt: Making = {
    how: "weighed",
    solid: "Na2S2O3·5H2O",
    solidName: "sodium thiosulfate pentahydrate",
    weighing: "transfer",
    window: [6, 6.5],
    purity: { percent: "99.5", plusMinus: "0.3" },
    flaskMl: "250.0",
  };

  /** 248.17 g/mol (CHECKS.md). */
  test.each([
    ["transfer", { "m:mass.before": "9.2042", "m:mass.after": "3.0000" }],
    ["addition", { "m:mass.before": "30.0000", "m:mass.after": "36.2042" }],
    ["tared", { "m:mass.tared": "6.2042" }],
  ] as const)("weighed by %s, the hydrate's water counted", (weighing, typed) => {
    const { c, stage } = made({ ...salt, weighing }, typed);
    expect(inUnit(c!, "mol/L")).toBeCloseTo((6.2042 * 0.995) / 248.17 / 0.25, 5);
    // Purity rules: 0.3 / √3 / 99.5 = 0.17 %
    expect(standardUncertainty(c!) / c!.value).toBeCloseTo(0.0018, 3);
    expect(stage.cautions).toEqual([]);
  });

  test("a mass outside the window is a caution, junk is told by its field, and the rest stands", () => {
    const { stage, problems, c } = made(
      { ...salt, weighing: "tared" },
      { "m:mass.tared": "7.0000", "P:purity": "120" },
    );
    expect(stage.cautions.map((x) => inEnglish(x.message)).join()).toMatch(/7\.0/);
    expect(plain(problems)).toEqual({ "P:purity": expect.stringMatching(/100/) });
    expect(c).not.toBeNull();
  });

  test("a dilution keeps the stock's standard uncertainty as it is", () => {
    const { c } = made(
      { how: "diluted", glass: { kind: "pipette" }, flaskMl: "250.0" },
      { "c_0:given": "0.5000", "c_0:given.standard-uncertainty": "0.0010", "V_0:volume.taken": "50.00" },
    );
    expect(inUnit(c!, "mol/L")).toBeCloseTo(0.1, 12);
    const stock = standardUncertainty(c!, (leaf) => leaf.kind === "given");
    expect(stock).toBeCloseTo(0.0002, 12);
    expect(standardUncertainty(c!)).toBeGreaterThan(stock);
  });
});

describe("one concentration in all its forms", () => {
  test("and back again", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-4, max: 10, noNaN: true }),
        fc.constantFrom(1, 2, 5),
        (value, equivalents) => {
          const same = { formula: "H2SO4", equivalents, densityGPerMl: 1.05 };
          const forms = convertConcentration({ ...same, value, unit: "mol/L" })!;
          const backs = [
            [forms.normality, "N"],
            [forms.gPerL, "g/L"],
            [forms.percentWV, "% w/v"],
            [forms.mgPerL, "mg/L"],
            [forms.percentWW!, "% w/w"],
            [forms.ppm!, "ppm"],
          ] as const;
          for (const [number, unit] of backs) {
            expect(convertConcentration({ ...same, value: number, unit })!.molPerL / value).toBeCloseTo(
              1,
              10,
            );
          }
        },
      ),
    );
  });

  /** From memory: concentrated hydrochloric acid, 37 % w/w, 1.18 g/mL, is 12 mol/L. */
  test("a mass fraction needs the density", () => {
    const acid = { formula: "HCl", value: 37, unit: "% w/w", equivalents: 1 } as const;
    expect(convertConcentration({ ...acid, densityGPerMl: 1.18 })!.molPerL).toBeCloseTo(12, 1);
    expect(convertConcentration({ ...acid, densityGPerMl: null })).toBeNull();
  });
});

test("lineage: what it stands on, what depends on it, and a circle", () => {
  const standsOn = new Map([
    ["base", ["phthalate"]],
    ["acid", ["base"]],
    ["sample", ["acid", "base"]],
  ]);
  expect([...ancestorsOf("sample", standsOn)].sort()).toEqual(["acid", "base", "phthalate"]);
  expect([...dependentsOf("phthalate", standsOn)].sort()).toEqual(["acid", "base", "sample"]);
  expect(ancestorsOf("base", new Map([...standsOn, ["phthalate", ["acid"]]]))).toContain("base");
});

describe("what a glass can deliver", () => {
  const read = (decimals: number) => ({ capacityMl: 50, resolutionMl: 10 ** -decimals });

  /** About 20 drops to the mL; half a division can be judged. Common practice, no source. */
  test.each([
    [{ kind: "burette" }, 1, 0.1],
    [{ kind: "burette" }, 2, 0.05],
    [{ kind: "graduated pipette", capacityMl: 10 }, 2, 0.05],
    [{ kind: "cylinder", capacityMl: 50 }, 2, 0.5],
    [{ kind: "cylinder", capacityMl: 30 }, 2, 0.5],
    [{ kind: "pipette" }, 2, null],
  ] as const)("%p, read to %p decimals, goes by steps of %p mL", (glass, decimals, step) => {
    expect(deliveryStepMl(glass, read(decimals))).toBe(step);
  });

  test("a small volume by a cylinder is told as uncertain; by a burette it is not", () => {
    const request = { stock: 1, target: 0.02, volumeMl: 100, burette: read(2) };
    const cautions = (glass: DeliveringGlass) => {
      const plan = planDilution({ ...request, glass });
      return plan.ok ? plan.value.cautions : [plan.problem.message];
    };
    expect(plain(cautions({ kind: "cylinder", capacityMl: 50 }))).toEqual([
      "Such a small volume is uncertain from its reading alone: ± 13 %",
    ]);
    expect(cautions({ kind: "burette" })).toEqual([]);
  });

  test("levels are equally far apart and end where they should", () => {
    expect(evenLevels(0.002, 0.01, 5)).toEqual([0.002, 0.004, 0.006, 0.008, 0.01]);
    expect(evenLevels(0.3, 0.3, 1)).toEqual([0.3]);
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 1, noNaN: true }),
        fc.integer({ min: 2, max: 12 }),
        (low, n) => {
          const levels = evenLevels(low, low * 3, n);
          return levels.length === n && levels.every((c, i) => i === 0 || c > (levels[i - 1] ?? NaN));
        },
      ),
    );
  });
});

test("A burette that makes a series goes on from reading to reading, and is filled again before it would run dry", () => {
  const rules = { capacityMl: 25, resolutionMl: 0.01 };
  expect(burettePasses([2, 4, 6, 8, 10], rules)).toEqual([
    { fromMl: 0, toMl: 2, refill: false },
    { fromMl: 2, toMl: 6, refill: false },
    { fromMl: 6, toMl: 12, refill: false },
    { fromMl: 12, toMl: 20, refill: false },
    { fromMl: 0, toMl: 10, refill: true },
  ]);
  expect(burettePasses([30, 5], rules, 0.1)).toEqual([null, { fromMl: 0.1, toMl: 5.1, refill: false }]);
});
