import { describe, expect, test } from "@jest/globals";
import { plusMinus } from "~/core/judgement";
import { effectiveDegreesOfFreedom, inUnit, standardUncertainty, studentT } from "~/core/quantity";
import { type CalibrationEvaluation, resultQuantity, type UnknownEvaluation } from "~/core/stages";
import { checkRecord, evaluateRun, programOf } from "~/core/evaluate";
import type { Method } from "~/core/method";
import type { RunRecord } from "~/core/run";
import { workingOf } from "~/core/working";
import { propagateAll } from "~/core/montecarlo";
import { mustHold } from "~/core/result";
import { methods } from "~/catalog/methods";
import { type Typed, typedRun, type TypedStage } from "../testing/typed-run";
import { inEnglish } from "../text";
import { plain } from "../testing/plain";

const phosphate = methods.find((m) => m.id === "phosphate-as-molybdenum-blue")!;

/** Standards of the phosphate method as their readings: mL of stock and what was shown. */
const standards = (rows: Readonly<Record<string, string>>): Typed[] =>
  Object.entries(rows).map(([ml, shown]) => ({ "V_s:volume.taken": ml, "A:absorbance": shown }));

const usual = {
  "0.00": "0.001 0.003",
  "2.00": "0.140 0.142",
  "4.00": "0.281 0.279",
  "6.00": "0.419 0.421",
  "8.00": "0.560 0.558",
  "10.00": "0.699 0.703",
};

const run = (stages: {
  standards?: TypedStage;
  unknown?: TypedStage;
}): { record: RunRecord; line: CalibrationEvaluation; unknown: UnknownEvaluation } => {
  const record = typedRun(phosphate, {
    wavelength: { once: { "λ:given": "880" } },
    standards: { trials: standards(usual) },
    ...stages,
  });
  const evaluated = evaluateRun(record).stages;
  const line = evaluated.find((s) => s.kind === "calibration");
  const unknown = evaluated.find((s) => s.kind === "unknown");
  if (line?.kind !== "calibration" || unknown?.kind !== "unknown") throw new Error("no assay");
  return { record, line, unknown };
};

const sample = (shown: string, more: Typed = {}): Typed => ({
  "V_u:volume.taken": "25.00",
  "A:absorbance": shown,
  ...more,
});

describe("standards and the line through them", () => {
  test("readings of several people are pooled; the line and its limits come out of all of them", () => {
    const { line, record } = run({});
    expect(checkRecord(record)).toEqual([]);
    expect(line.line?.fit.points).toHaveLength(12);
    expect(line.line?.fit.degreesOfFreedom).toBe(10);
    expect(line.line?.fit.coefficients[1]).toBeCloseTo(0.698, 3);
    expect([line.done, line.ahead]).toEqual([true, []]);
    const s = line.line!.fit.residualSd;
    expect(line.line?.limits.line?.detection).toBeCloseTo((3.3 * s) / line.line!.fit.coefficients[1], 9);
    expect(line.line?.limits.blanks).toBeNull();
  });

  test("a reading in transmittance is turned into absorbance", () => {
    const typed = standards(usual).map((t, i) =>
      i === 5 ? { "V_s:volume.taken": "10.00", "A:transmittance": "20.0" } : t,
    );
    const { line } = run({ standards: { trials: typed } });
    expect(line.levels.at(-1)?.readings[0]).toMatchObject({ text: "20.0", unit: "%" });
    expect(line.levels.at(-1)?.mean).toBeCloseTo(0.69897, 5);
  });

  test.each([
    [{ "2.00": "0.140", "4.00": "0.281" }, /needs at least 3 different standards: there are 2/],
    [{ "2.00": "0.140 0.141 0.139" }, /All standards have the same concentration/],
  ])("too few of them (%j) are told in words, and what to read next", (rows, message) => {
    const { line } = run({ standards: { trials: standards(rows) } });
    expect(plain(line.problem)).toMatch(message);
    expect(plain([line.quantity, line.done])).toEqual([null, false]);
    expect(plain(line.next)).toMatch(/Next: the flask with 0.00 mL. Rinse the cuvette with it/);
  });

  test("a struck flask, a struck reading and a zero standard that is left out are no part of the line, but stay", () => {
    const { record } = run({ standards: { trials: standards(usual), choices: { zero: "out" } } });
    const stage = record.stages.find((s) => s.key === "standards")!;
    stage.trials[1]!.struck = { at: record.startedAt, person: "bench 2", reason: "filled past the mark" };
    const [, wrong] = stage.trials[2]!.observations;
    stage.trials[2]!.observations.push({
      ...wrong!,
      id: "struck",
      text: "",
      value: null,
      supersedes: wrong!.id,
      reason: "fingerprint",
    });
    const line = evaluateRun(record).stages.find((s) => s.kind === "calibration") as CalibrationEvaluation;
    expect(line.line?.fit.points).toHaveLength(12 - 2 - 2 - 1);
    expect(plain(line.levels.map((l) => l.leftOut))).toEqual([
      "the zero standard is left out",
      "struck out: filled past the mark",
      null,
      null,
      null,
      null,
    ]);
    expect(line.levels[2]?.readings[0]).toMatchObject({ text: "0.281", struck: { reason: "fingerprint" } });
  });

  test("drift of the blank, drift of a standard, readings below zero and beyond stray light are told", () => {
    const trials = standards({ ...usual, "0.00": "-0.012 -0.010", "10.00": "1.620 1.618" }).map((t, i) =>
      i === 3 ? { ...t, "A:absorbance.again": "0.452" } : t,
    );
    const { line } = run({ standards: { once: { "A_0:absorbance": "0.001 0.061" }, trials } });
    const messages = line.cautions.map((c) => inEnglish(c.message)).join("\n");
    expect(messages).toMatch(/blank moved from 0.001 to 0.061/);
    expect(messages).toMatch(/standard 1 reads below zero \(-0.012\)/);
    expect(messages).toMatch(/standard 6 reads 1.62: above 1.5, stray light/);
    const calm = run({
      standards: {
        once: { "A_0:absorbance": "0.001 0.002" },
        trials: standards(usual).map((t, i) => (i === 3 ? { ...t, "A:absorbance.again": "0.452" } : t)),
      },
    });
    expect(plain(calm.line.cautions.map((c) => c.message))).toEqual([
      expect.stringMatching(/At the end standard 4 read 0.452 and not 0.420/),
    ]);
  });

  test("weights that a zero standard cannot bear are refused in words, and can be had without it", () => {
    const weighed = (choices: Record<string, string>) =>
      run({ standards: { trials: standards(usual), choices } }).line;
    expect(plain(weighed({ weighting: "1/x" }).problem)).toMatch(/give a zero standard infinite weight/);
    const without = weighed({ weighting: "1/x", zero: "out" });
    expect(plain([without.problem, without.line?.fit.weighting])).toEqual([null, "1/x"]);
    expect(weighed({ model: "origin" }).line?.fit.coefficients[0]).toBe(0);
  });
});

describe("an unknown read off the line", () => {
  test("is carried back through its dilution; more readings of it, and more flasks, make the ± smaller", () => {
    const one = run({ unknown: { trials: [sample("0.350")] } }).unknown;
    const four = run({ unknown: { trials: [sample("0.350 0.350 0.350 0.350")] } }).unknown;
    const two = run({ unknown: { trials: [sample("0.350"), sample("0.350")] } }).unknown;
    const u = (s: UnknownEvaluation) => standardUncertainty(s.combined!.quantity);
    expect(inUnit(one.combined!.quantity, "mg/L")).toBeCloseTo((2 * (0.35 - 0.0016)) / 0.6982, 2);
    expect(u(four)).toBeLessThan(u(one));
    expect(u(two)).toBeLessThan(u(one));
    // What the line brings does not average out.
    expect(u(two)).toBeGreaterThan(u(one) / Math.SQRT2);
  });

  test("its interval goes by the degrees of freedom of the line, however many parts the line's ± has", () => {
    const { unknown, line } = run({ unknown: { trials: [sample("0.350 0.352")] } });
    const q = unknown.combined!.quantity;
    const fit = line.line!.fit;
    const df = effectiveDegreesOfFreedom(q);
    const parts = [...q.sensitivities.values()].filter((s) => s.leaf.estimate !== undefined);
    expect(parts.length).toBeGreaterThan(2);
    // The two readings, whose scatter F does not tell from the line's, add one degree to those of the line.
    expect(effectiveDegreesOfFreedom(q, (l) => l.estimate !== undefined)).toBeCloseTo(
      fit.degreesOfFreedom + 1,
      9,
    );
    expect(df).toBeGreaterThan(fit.degreesOfFreedom);
    expect(plusMinus(q, "i95")).toBeCloseTo(studentT(0.95, df) * standardUncertainty(q), 12);
  });

  test("a stock that is one percent off moves the result by one percent: the line's whole axis moves", () => {
    const { unknown } = run({ unknown: { trials: [sample("0.350")] } });
    const q = unknown.combined!.quantity;
    const stock = [...q.sensitivities.values()].find((s) => s.leaf.label === "Phosphorus in the stock")!;
    // 0.01 mg/L of 5 mg/L, rectangular.
    expect((stock.by * stock.leaf.u) / q.value).toBeCloseTo(0.01 / 5 / Math.sqrt(3), 5);
  });

  test("a million draws through the same relations give the same ±", () => {
    const { record, unknown } = run({ unknown: { trials: [sample("0.350"), sample("0.353")] } });
    const drawn = propagateAll(mustHold(programOf(record, "unknown", "normal")), { draws: 200_000, seed: 3 });
    const q = unknown.combined!.quantity;
    expect(drawn.mean / q.value).toBeCloseTo(1, 3);
    expect(Math.abs(drawn.standardUncertainty / standardUncertainty(q) - 1)).toBeLessThan(0.02);
  });

  test.each([
    ["0.950", "above", /lies 3\d % above the strongest standard.*dilute it 2-fold \(50 mL to 100 mL\)/],
    ["0.004", "undetected", /below the limit of detection \(by the line/],
    ["-0.020", "undetected", /reads -0.020, below the line’s value for zero/],
    ["0.012", "within", /below the limit of quantitation/],
  ])("that reads %s lies %s, and is told so", (shown, place, text) => {
    const { unknown } = run({ unknown: { trials: [sample(shown)] } });
    expect(plain(unknown.trials[0]?.range)).toMatchObject({ place, text: expect.stringMatching(text) });
    expect(plain(unknown.cautions.map((c) => c.message))).toContainEqual(expect.stringMatching(text));
  });

  test("below the weakest standard it is told, where there is no zero standard", () => {
    const others = Object.fromEntries(Object.entries(usual).filter(([ml]) => ml !== "0.00"));
    const { unknown } = run({
      standards: { trials: standards(others) },
      unknown: { trials: [sample("0.100")] },
    });
    expect(plain(unknown.trials[0]?.range)).toMatchObject({
      place: "below",
      text: expect.stringMatching(/0.200 mg\/L/),
    });
  });

  test("without a line it waits, and says for what", () => {
    const { unknown } = run({ standards: { trials: [] }, unknown: { trials: [sample("0.350")] } });
    expect(plain([unknown.combined, unknown.problem])).toEqual([null, "Read the standards has no line yet"]);
  });

  test.each([
    ["1.30", /clearly below the limit.*It passes/],
    ["1.00", /too near the limit/],
    ["0.70", /clearly above the limit.*It fails/],
  ])("against a limit of %s mg/L the verdict takes the ± into account", (limit, text) => {
    const { unknown } = run({ unknown: { once: { "c_lim:given": limit }, trials: [sample("0.350")] } });
    expect(plain(unknown.acceptance?.text)).toMatch(text);
  });

  test("two flasks that differ bring their scatter into the ±; two that disagree make no result", () => {
    const near = run({ unknown: { trials: [sample("0.350"), sample("0.362")] } }).unknown;
    expect(near.combined?.repeatabilityFrom).toBe("scatter");
    expect(plain([near.agreement.state, near.done, near.shares[0]?.label])).toEqual([
      "set",
      true,
      "Agreement of the trials",
    ]);
    const apart = run({ unknown: { trials: [sample("0.318"), sample("0.450")] } }).unknown;
    expect([apart.agreement.state, apart.combined, apart.done]).toEqual(["apart", null, false]);
    expect(plain(apart.next)).toMatch(
      /Flasks 1 and 2 disagree: .* more than the 5\.0 % .* Make another flask/,
    );
    // A third tells which of them is right; the other lies outside.
    const third = run({
      unknown: { trials: ["0.318", "0.450", "0.452"].map((shown) => sample(shown)) },
    }).unknown;
    expect(plain(third.agreement)).toMatchObject({ state: "set", members: ["unknown-2", "unknown-3"] });
    expect(plain(third.agreement.text)).toMatch(/Flask 1 lies outside/);
  });

  test("readings of one flask that scatter as the line does are pooled with it; those that do not count by themselves", () => {
    const of = (text: string) => run({ unknown: { trials: [sample(text)] } }).unknown.trials[0]!;
    const quiet = of("0.350 0.352 0.349");
    expect(quiet.off?.within).toMatchObject({ pooled: true, degreesOfFreedom: 2 });
    expect(quiet.cautions).toEqual([]);
    const wild = of("0.318 0.418");
    // s = 0.100/√2, its own: u(x) from readings is s/√2/b
    expect(wild.off?.within?.sd).toBeCloseTo(0.1 / Math.SQRT2, 12);
    expect(wild.off?.within?.pooled).toBe(false);
    expect(wild.off!.fromReadings * 0.6982).toBeCloseTo(0.05, 3);
    expect(plain(wild.cautions.map((c) => c.message))).toEqual([
      expect.stringMatching(
        /readings of flask 1 are 0\.100 apart, more than the 0\.010 that the house rules allow/,
      ),
      expect.stringMatching(
        /scatter by 0\.071, those about the line by 0\.\d+ \(F = .*: their own scatter is counted/,
      ),
    ]);
  });
});

test.each([
  [
    "by concentration, typed for each flask",
    { symbol: "c", is: "given", label: "Concentration", unit: "mg/L", per: "trial" },
    [] as { relation: string; title: string; unit: string }[],
    "c:given",
    [0, 0.2, 0.4, 0.6, 0.8],
  ],
  [
    "by mass, weighed into each flask",
    { symbol: "m", is: "mass", label: "Mass", of: "KH2PO4", per: "trial", weighing: "tared" },
    [{ relation: "c = m / V_f", title: "Concentration", unit: "mg/L" }],
    "m:mass.tared",
    [0.01, 0.02, 0.03, 0.04, 0.05],
  ],
] as const)("Standards %s make the same line", (_how, input, relations, key, amounts) => {
  const method: Method = {
    ...phosphate,
    id: "other-standards",
    stages: phosphate.stages.map((s) =>
      s.kind === "calibration"
        ? {
            ...s,
            inputs: [...s.inputs.filter((i) => i.symbol !== "V_s" && i.symbol !== "c_0"), input],
            axis: { symbol: "c", name: "Concentration", unit: "mg/L", relations: [...relations] },
            series: { symbol: input.symbol, values: amounts.map(String) },
          }
        : s,
    ),
  };
  const perUnit = input.is === "mass" ? 20_000 : 1;
  const record = typedRun(method, {
    wavelength: { once: { "λ:given": "880" } },
    standards: {
      trials: amounts.map((x) => ({
        [key]: input.is === "mass" ? x.toFixed(4) : String(x),
        "A:absorbance": (0.001 * x * perUnit).toFixed(4),
      })),
    },
    unknown: { trials: [{ "V_u:volume.taken": "50.00", "A:absorbance": (0.0003 * perUnit).toFixed(4) }] },
  });
  const stages = evaluateRun(record).stages;
  const line = stages.find((s) => s.kind === "calibration") as CalibrationEvaluation;
  expect(plain([line.problem, line.ahead])).toEqual([null, []]);
  expect(line.line?.fit.coefficients[1]).toBeCloseTo(0.001, 9);
  const unknown = stages.find((s) => s.kind === "unknown") as UnknownEvaluation;
  expect(inUnit(unknown.combined!.quantity, "mg/L")).toBeCloseTo(0.3 * perUnit, 3);
});

test("A standard addition reads the sample off the axis; a stock that is off moves it likewise", () => {
  const method = methods.find((m) => m.id === "iron-by-standard-addition")!;
  const trials = (["0.00", "2.00", "4.00", "6.00", "8.00"] as const).map((ml, i) => ({
    "V_s:volume.taken": ml,
    "A:absorbance": ["0.242 0.240", "0.399 0.402", "0.560 0.561", "0.722 0.719", "0.881 0.878"][i]!,
  }));
  const record = typedRun(method, { wavelength: { once: { "λ:given": "510" } }, additions: { trials } });
  const stage = evaluateRun(record).stages.find((s) => s.kind === "calibration") as CalibrationEvaluation;
  const q = resultQuantity(stage)!;
  expect(inUnit(q, "mg/L")).toBeCloseTo(3.01, 1);
  const stock = [...q.sensitivities.values()].find((s) => s.leaf.label === "Iron in the stock")!;
  expect((stock.by * stock.leaf.u) / q.value).toBeCloseTo(0.05 / 20 / Math.sqrt(3), 5);
  expect(plain(stage.next)).toMatch(/go on|drifted/);
});

describe("a course of absorbance", () => {
  const dye = methods.find((m) => m.id === "fading-of-a-dye")!;
  const seconds = Array.from({ length: 120 }, (_, t) => t);
  const course = (k: number) => ({
    x: seconds,
    absorbance: seconds.map(
      (t) => Math.round(1000 * (0.9 * Math.exp(-k * t) + 0.002 * Math.sin(7 * t))) / 1000,
    ),
  });
  const rate = (
    courses: ReturnType<typeof course>[],
    bases: readonly string[],
    more: Partial<TypedStage> = {},
  ) => {
    const record = typedRun(dye, {
      wavelength: { once: { "λ:given": "590" } },
      fading: {
        once: { "T:temperature": "21.0" },
        trials: bases.map((b) => ({ "c_B:given": b })),
        courses,
        ...more,
      },
    });
    const stage = evaluateRun(record).stages.find((s) => s.kind === "rate");
    if (stage?.kind !== "rate") throw new Error("no rate");
    return { record, stage };
  };

  test("tells its order, the order in the excess reagent, and the constant of both", () => {
    const { stage, record } = rate(
      [course(0.006), course(0.012), course(0.024)],
      ["0.050", "0.100", "0.200"],
    );
    expect(checkRecord(record)).toEqual([]);
    expect([stage.order, stage.chosen]).toEqual([1, false]);
    expect(plain(stage.dependence)).toMatchObject({ ok: true, value: { nearest: 1 } });
    const q = stage.combined!.quantity;
    expect(Math.abs(q.value - 0.12)).toBeLessThan(3 * standardUncertainty(q));
  });

  test("another order can be taken instead; the window decides what is used", () => {
    const chosen = rate([course(0.012)], ["0.100"], { choices: { order: "2" } }).stage;
    expect([chosen.order, chosen.chosen]).toEqual([2, true]);
    const narrow = rate([course(0.012)], ["0.100"], {
      trials: [{ "c_B:given": "0.100", "A:window.from": "10", "A:window.to": "60" }],
    }).stage;
    expect(narrow.trials[0]?.comparison?.fits[1].residuals).toHaveLength(51);
    const empty = rate([course(0.012)], ["0.100"], {
      trials: [{ "c_B:given": "0.100", "A:window.from": "10", "A:window.to": "13" }],
    }).stage;
    expect(plain([empty.combined, empty.problem])).toEqual([
      null,
      expect.stringMatching(/4 readings lie in the window/),
    ]);
  });

  test("each order has a constant in its own unit: by absorbance, or by concentration where the absorptivity is stated", () => {
    const of = (order: "0" | "1" | "2", once: Record<string, string> = {}) =>
      rate([course(0.012)], ["0.100"], {
        choices: { order },
        once: { "T:temperature": "21.0", ...once },
      }).stage;
    const known = { "ε:given": "80000", "ε:given.plus-minus": "500" };
    const units = (["0", "1", "2"] as const).map((o) => [of(o).shown?.unit, of(o, known).shown?.unit]);
    expect(units).toEqual([
      ["absorbance/s", "mol/(L·s)"],
      ["L/(mol·s)", "L/(mol·s)"],
      ["1/(absorbance·s)", "L/(mol·s)"],
    ]);
    // k by absorbance, times ε l, is k by concentration.
    const fit = of("2").trials[0]!.comparison!.fits[2];
    expect(of("2").combined!.quantity.value).toBeCloseTo(fit.k, 12);
    expect(of("2", known).combined!.quantity.value / fit.k).toBeCloseTo(80_000, 4);
    expect(of("2").definition.result.name).toMatch(/second order, per absorbance/);
    const { record } = rate([course(0.012)], ["0.100"], { choices: { order: "2" } });
    expect(plain(workingOf(record, evaluateRun(record), "fading", null)?.steps.at(-1)?.valueText)).toMatch(
      /1\/\(absorbance·s\)$/,
    );
    expect(programOf(record, "fading").ok).toBe(true);
  });

  test("a course that levels off is not passed over: it is told, and the end can be fitted", () => {
    const levelling = {
      x: seconds.map((t) => 2 * t),
      absorbance: seconds.map(
        (t) => Math.round(1000 * (0.05 + 0.85 * Math.exp(-0.02 * 2 * t) + 0.001 * Math.sin(7 * t))) / 1000,
      ),
    };
    const left = rate([levelling], ["0.100"]).stage;
    expect(plain(left.next)).toMatch(/levels off near 0\.05\d?, not at zero/);
    expect(Math.abs(left.combined!.quantity.value - 0.2)).toBeGreaterThan(0.01);
    const fitted = rate([levelling], ["0.100"], { choices: { end: "fitted" } }).stage;
    expect([fitted.endFitted, fitted.combined!.quantity.value]).toEqual([true, expect.closeTo(0.2, 2)]);
  });

  test("points that do not rise, and a course of a trial that is not there, are told by path", () => {
    const { record } = rate([course(0.012)], ["0.100"]);
    const trace = record.stages.find((s) => s.key === "fading")!.traces![0]!;
    trace.x[5] = 4;
    trace.trialId = "another";
    trace.absorbance.pop();
    expect(checkRecord(record).map((p) => p.path)).toEqual([
      "stages.1.traces.0.absorbance",
      "stages.1.traces.0.x.5",
      "stages.1.traces.0.trialId",
    ]);
  });
});
