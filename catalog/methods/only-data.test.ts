import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { standardUncertainty } from "~/core/quantity";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { Method, TitrationStage } from "~/core/method";
import type { RunRecord } from "~/core/run";
import { baseByPhthalateThenAcid } from "./acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "../rules/defaults";
import { aliquot, flask, runRecord } from "../../core/testing/build-record";
import { plain } from "~/core/testing/plain";

/*
 * Other procedures are other data: the same core computes them with nothing added. And what it computes recovers the
 * truth that made-up readings were made from.
 */

const result = (record: RunRecord, key: string) => {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  if (stage?.kind !== "titration" || !stage.combined) throw new Error(`no result of ${key}`);
  return stage;
};

const [standardize, determine] = baseByPhthalateThenAcid.stages as [TitrationStage, TitrationStage];

describe("acid by sodium carbonate, two moles of acid for one of carbonate", () => {
  const method: Method = {
    ...baseByPhthalateThenAcid,
    id: "acid-by-carbonate",
    equations: [
      { name: "standardization", equation: "Na2CO3 + 2 HCl -> 2 NaCl + H2O + CO2" },
      { name: "back", equation: "NaOH + HCl -> NaCl + H2O" },
    ],
    stages: [
      {
        ...standardize,
        inputs: standardize.inputs.map((input) =>
          input.is === "mass" ? { ...input, of: "Na2CO3", expect: [0.1, 0.3] as [number, number] } : input,
        ),
        relations: [
          { relation: "n_s = m * P / M(Na2CO3)", title: "Amount of carbonate", unit: "mmol" },
          { relation: "n_b = n_s * ratio(HCl, Na2CO3)", title: "Amount of acid it takes", unit: "mmol" },
          { relation: "c_b = n_b / V", title: "Concentration of the acid", unit: "mol/L" },
        ],
      },
      {
        ...determine,
        relations: [
          { relation: "n_b = c_b * V", title: "Amount of acid used", unit: "mmol" },
          { relation: "n_a = n_b * ratio(NaOH, HCl)", title: "Amount of base", unit: "mmol" },
          { relation: "c_a = n_a / V_a", title: "Concentration of the base", unit: "mol/L" },
        ],
      },
    ],
  };

  test("c = 2 m / (M V), and the mass window is that of the method", () => {
    const record = { ...runRecord([flask("1.3325", "1.2000", "0.00", "25.00")]), method };
    // 2 · 0.1325 g / 105.988 g/mol / 0.02500 L = 0.100011 mol/L
    expect(result(record, "standardize").combined?.quantity.value.toFixed(6)).toBe("0.100011");
    expect(result(record, "standardize").cautions).toEqual([]);
    const light = { ...runRecord([flask("1.2500", "1.2000", "0.00", "9.43")]), method };
    expect(plain(result(light, "standardize").cautions[0]?.message)).toMatch(
      /0\.0500 g is below the 0\.1 to 0\.3 g/,
    );
  });
});

/** Common practice, no source: 22.4 mL of 0.100 mol/L base for 10 mL of acid: 0.224 mol/L. */
test("10 mL of acid against 22.4 mL of a base whose concentration is a house's own", () => {
  // A mass that makes the base 0.1000 mol/L at 25.00 mL: 0.1 · 0.025 · 204.222 = 0.510555 g
  const record = runRecord([flask("2.6106", "2.1000", "0.00", "25.00")], [aliquot("10.00", "0.00", "22.40")]);
  expect(result(record, "determine").combined?.quantity.value.toFixed(3)).toBe("0.224");
});

describe("evaluate(simulate(truth)) recovers the truth", () => {
  const { burette, balance } = defaultHouseRules;
  const within = (half: number) => fc.double({ min: -half, max: half, noNaN: true });
  const reading = within(Number(burette.readingHalfWidthMl));
  const weighing = within(Number(balance.linearityG));

  test("well within the ±, for any base and acid and any errors that the tolerances allow, even all at once", () => {
    const trialErrors = fc.record({ mass: weighing, initial: reading, final: reading, weighed: within(0.1) });
    fc.assert(
      fc.property(
        fc.double({ min: 0.08, max: 0.12, noNaN: true }),
        fc.double({ min: 0.06, max: 0.12, noNaN: true }),
        within(0.05),
        within(0.05),
        within(0.03),
        within(0.0005),
        fc.array(trialErrors, { minLength: 3, maxLength: 3 }),
        (base, acid, firstBurette, secondBurette, pipette, purity, errors) => {
          const flasks = errors.map(({ mass, initial, final, weighed }) => {
            const m = 0.5 + weighed;
            const titer = ((m * (1 + purity)) / 204.222 / base) * 1000;
            const boat = 2.1;
            return flask(
              (boat + m + mass).toFixed(4),
              boat.toFixed(4),
              (5 + initial).toFixed(2),
              (5 + titer - firstBurette + final).toFixed(2),
            );
          });
          const aliquots = errors.map(({ initial, final }) => {
            const titer = (acid * (25 + pipette)) / base;
            return aliquot("25.00", (2 + final).toFixed(2), (2 + titer - secondBurette + initial).toFixed(2));
          });
          // One wide rule: the question here is the ±, not the verdict.
          const rules: HouseRules = {
            ...defaultHouseRules,
            agreement: { rule: "n-within", replicates: 3, withinMl: "1.00" },
          };
          const record = runRecord(flasks, aliquots, rules);
          for (const [key, truth] of [
            ["standardize", base],
            ["determine", acid],
          ] as const) {
            const { quantity } = result(record, key).combined!;
            // With every error at its limit at once, and readings rounded, the worst lies below seven u; and u stays small.
            const u = standardUncertainty(quantity);
            expect(Math.abs(quantity.value - truth)).toBeLessThan(8 * u);
            expect(u / truth).toBeLessThan(0.006);
          }
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe("what the house chooses changes the ± and never the value", () => {
  const flasks = [
    flask("2.6106", "2.1000", "0.00", "25.00"),
    flask("2.5901", "2.1000", "0.10", "24.11"),
    flask("2.6310", "2.1000", "0.20", "26.18"),
  ];
  const by = (change: (rules: typeof defaultHouseRules) => typeof defaultHouseRules) =>
    result(runRecord(flasks, [], change(defaultHouseRules)), "standardize");
  const u = ({ combined }: ReturnType<typeof by>) => standardUncertainty(combined!.quantity);
  const usual = by((rules) => rules);

  test.each<[string, number, (rules: typeof defaultHouseRules) => typeof defaultHouseRules]>([
    ["class B glass", 1, (r) => ({ ...r, glassware: { ...r.glassware, toleranceClass: "B" } })],
    [
      "rectangular tolerances",
      1,
      (r) => ({ ...r, glassware: { ...r.glassware, toleranceShape: "rectangular" } }),
    ],
    [
      "a balance to the milligram",
      1,
      (r) => ({ ...r, balance: { ...r.balance, readabilityG: "0.001", linearityG: "0.002" } }),
    ],
    [
      "a room that strays by 10 °C",
      1,
      (r) => ({ ...r, temperature: { ...r.temperature, halfRangeC: "10" } }),
    ],
    ["a known repeatability of 0.5 %", 1, (r) => ({ ...r, priorRepeatabilityPercent: "0.5" })],
    ["a room that does not stray", -1, (r) => ({ ...r, temperature: { ...r.temperature, halfRangeC: "0" } })],
    ["a 25 mL burette", -1, (r) => ({ ...r, burette: { ...r.burette, capacityMl: 25 } })],
  ])("%s", (_what, direction, change) => {
    const changed = by(change);
    expect(Math.sign(u(changed) - u(usual))).toBe(direction);
    expect(changed.combined?.quantity.value).toBeCloseTo(usual.combined!.quantity.value, 14);
  });

  test("the style of ± is a matter of how it is said", () => {
    const [k2, one, interval] = (["k2", "u", "i95"] as const).map((plusMinus) =>
      by((r) => ({ ...r, plusMinus })),
    );
    expect(u(one!)).toBe(u(usual));
    expect(Number(k2!.shown?.plusMinus)).toBeCloseTo(2 * u(usual), 5);
    expect(Number(one!.shown?.plusMinus)).toBeCloseTo(u(usual), 5);
    // Mostly tolerances, so nearly a normal distribution's 1.96.
    expect(Number(interval!.shown?.plusMinus) / u(usual)).toBeCloseTo(1.96, 0);
  });
});
