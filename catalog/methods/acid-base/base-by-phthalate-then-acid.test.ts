import type { Expected } from "~/core/method";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { standardUncertainty } from "~/core/quantity";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import type { TitrationEvaluation } from "~/core/stages";
import { withDraft } from "~/core/evaluate";
import { workingOf } from "~/core/working";
import { defaultHouseRules } from "../../rules/defaults";
import { aliquot, flask, runRecord } from "../../../core/testing/build-record";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";

function stageOf(record: RunRecord, key: "standardize" | "determine"): TitrationEvaluation {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  if (stage?.kind !== "titration") throw new Error("no such stage");
  return stage;
}

/** EURACHEM/CITAC Guide CG 4 (QUAM), 3rd ed., example A2, with its own causes set through the house rules. */
const quamRules: HouseRules = {
  agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" },
  agreementOf: "titers",
  outliers: "none",
  burette: { ...defaultHouseRules.burette, capacityMl: 25, readingHalfWidthMl: "0" },
  average: "results",
  words: defaultHouseRules.words,
  glassware: { toleranceClass: "A", toleranceShape: "triangular" },
  balance: { readabilityG: "0.0001", linearityG: "0.00015", correctBuoyancy: false },
  temperature: { labC: "20", halfRangeC: "3", shape: "normal95" },
  priorRepeatabilityPercent: "0.05",
  plusMinus: "u",
  digits: "uncertainty",
  percentError: "signed",
};

describe("QUAM A2: sodium hydroxide by potassium hydrogen phthalate", () => {
  const stage = stageOf(
    runRecord([flask("60.5450", "60.1562", "0.00", "18.64")], [], quamRules),
    "standardize",
  );

  test("c = 0.10214 mol/L, u = 0.00010 mol/L", () => {
    expect(plain(stage.shown)).toMatchObject({ value: "0.10214", plusMinus: "0.00010", unit: "mol/L" });
    const { value } = stage.combined?.quantity ?? { value: NaN };
    // The guide's 0.00097 comes from inputs rounded to two digits; unrounded, in parts of the value:
    // √(0.0005² + (0.0001225/0.3888)² + 0.0002887² + (0.0048/204.222)² + (0.01364/18.64)²) = 0.000984
    expect(standardUncertainty(stage.combined!.quantity) / value).toBeCloseTo(0.000984, 6);
  });

  test("the volume is the largest contribution, then repeatability", () => {
    const part = (...labels: string[]) =>
      stage.shares.filter((s) => labels.includes(inEnglish(s.label))).reduce((sum, s) => sum + s.part, 0);
    const volume = part("Burette, 25 mL class A", "Temperature");
    const repeatability = part("Agreement of the trials");
    expect(volume).toBeGreaterThan(repeatability);
    expect(repeatability).toBeGreaterThan(part("Balance"));
    expect(stage.combined?.repeatabilityFrom).toBe("earlier work");
  });
});

/** By hand: c = m / 204.222 / V: 0.5106/204.222/0.02500 = 0.100008; 0.4901/204.222/0.02401 = 0.099952; 0.5310/204.222/0.02598 = 0.100082 */
const three = [
  flask("2.6106", "2.1000", "0.00", "25.00"),
  flask("2.5901", "2.1000", "0.10", "24.11"),
  flask("2.6310", "2.1000", "0.20", "26.18"),
];

describe("standardization with unlike flasks", () => {
  test("compares titers per gram, as read for the mean flask", () => {
    const { agreement, trials, combined, shown } = stageOf(runRecord(three), "standardize");
    expect(plain(agreement)).toMatchObject({ label: "titer, mL, per 0.51 g", closed: true });
    // 25.00/0.5106·0.51 = 24.971; 24.01/0.4901·0.51 = 24.985; 25.98/0.5310·0.51 = 24.953
    expect(trials.map((t) => t.compared?.toFixed(3))).toEqual(["24.971", "24.985", "24.953"]);
    expect(combined?.quantity.value.toFixed(6)).toBe("0.100014");
    expect(plain(shown?.text)).toMatch(/^0\.1000\d ± 0\.000\d+ mol\/L$/);
  });

  test("rough and struck-out trials never count", () => {
    const with3 = stageOf(runRecord(three), "standardize").combined?.quantity.value;
    const rough = flask("2.6000", "2.1000", "0.00", "24.40", { kind: "rough" });
    const struck = flask("2.6000", "2.1000", "0.00", "24.48", { struck: true });
    const more = stageOf(runRecord([rough, ...three, struck]), "standardize");
    expect(more.combined?.quantity.value).toBe(with3);
    expect(plain(more.trials.map((t) => [t.name, t.eligible]))).toEqual([
      ["rough", false],
      ["1", true],
      ["2", true],
      ["3", true],
      ["4", false],
    ]);
  });

  test("the result does not depend on the order of trials", () => {
    const expected = stageOf(runRecord(three), "standardize").combined?.quantity.value;
    fc.assert(
      fc.property(fc.shuffledSubarray(three, { minLength: 3 }), (order) => {
        const { combined, verdict } = stageOf(runRecord(order), "standardize");
        return (
          Math.abs((combined?.quantity.value ?? 0) / (expected ?? 1) - 1) < 1e-12 &&
          verdict.state === "agreed"
        );
      }),
    );
  });

  test("scaling masses and volumes together leaves c unchanged", () => {
    const at = (tenths: number) =>
      stageOf(
        runRecord([flask((0.02 * tenths + 2).toFixed(4), "2.0000", "0.00", (0.98 * tenths).toFixed(2))]),
        "standardize",
      ).combined?.quantity.value ?? NaN;
    const expected = 0.02 / 204.222 / 0.00098;
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 50 }), (tenths) => Math.abs(at(tenths) / expected - 1) < 1e-9),
    );
  });
});

describe("verdict and guidance", () => {
  test("says where one more trial closes the set", () => {
    // 19.58 and 19.64 within 0.10: 19.64 - 0.10 = 19.54 to 19.58 + 0.10 = 19.68
    const { verdict } = stageOf(
      runRecord(three, [aliquot("25.00", "0.35", "19.93"), aliquot("25.00", "1.71", "21.35")]),
      "determine",
    );
    expect(plain(verdict)).toEqual({
      state: "collecting",
      reason:
        "Trials 1 and 2 lie within 0.06 mL. House rule: three within 0.10 mL of each other. It rests on a presumed purity of the phthalate.",
      next: "One more trial between 19.54 and 19.68 mL closes the set",
    });
  });

  test("leaves out what does not agree, and says so", () => {
    const { verdict, combined } = stageOf(
      runRecord(
        three,
        ["19.58", "19.64", "19.95", "19.60"].map((v) => aliquot("25.00", "0.00", v)),
      ),
      "determine",
    );
    expect(plain(verdict.reason)).toMatch(/^Trials 1, 2 and 4 lie within 0\.06 mL\. Trial 3 is left out\./);
    expect(plain(verdict.next)).toBe("Go on: Conclude");
    expect(combined?.count).toBe(3);
  });

  test("aliquots that differ are compared per mL", () => {
    const { agreement } = stageOf(
      runRecord(three, [aliquot("20.00", "0.00", "16.00"), aliquot("25.00", "0.00", "20.00")]),
      "determine",
    );
    expect(plain(agreement.label)).toBe("titer, mL, per 23 mL");
    expect(agreement.spread).toBeCloseTo(0, 9);
  });

  test("the end: not known by the method alone, then as a person expects, by the rough trial, by those that agree", () => {
    const weighed = (trials: typeof three, expected?: Expected) => {
      const record = {
        ...runRecord(trials),
        choices: expected ? [{ stageKey: "standardize", expected }] : [],
      };
      const texts = { "m:mass.before": "2.6000", "m:mass.after": "2.1000", "V:burette.initial": "30.00" };
      return stageOf(
        withDraft(record, { stageKey: "standardize", trialId: "next", kind: "fine", texts }),
        "standardize",
      ).guidance;
    };
    // 0.5 g / 204.222 / 0.1 mol/L = 24.48 mL
    expect(plain(weighed([]))).toMatchObject({
      from: "presumed",
      endNear: expect.closeTo(54.483, 2),
      slowAt: null,
      roomLeft: false,
    });
    expect(plain(weighed([])?.text)).toMatch(
      /the end point is not known: titrate a rough one first\. The method presumes it near 54\.5 mL, past the last mark at 50\. Refill/,
    );
    // Of 0.2 mol/L half of it; slow at 30 + 12.24 less two.
    expect(plain(weighed([], { value: 0.2, in: "unit" }))).toMatchObject({
      from: "expected",
      endNear: expect.closeTo(42.24, 2),
      slowAt: 40,
    });
    expect(plain(weighed([], { value: 15, in: "mL" })?.text)).toMatch(
      /run freely to 43\.0, then drop by drop\. Expect the end point near 45\.0 mL, as you expect/,
    );
    const rough = flask("2.6000", "2.1000", "0.00", "20.00", { kind: "rough" });
    expect(plain(weighed([rough]))).toMatchObject({
      from: "rough",
      endNear: expect.closeTo(50, 6),
      slowAt: 48,
    });
    // Trials say more than what was expected.
    expect(plain(weighed([rough], { value: 0.2, in: "unit" }))).toMatchObject({ from: "rough" });
    expect(plain(weighed(three))).toMatchObject({ from: "trials", titerMl: expect.closeTo(24.48, 2) });
  });

  test("while the base is unknown, the acid's end comes by its own titers, per mL of acid", () => {
    const begun = { "V_a:volume.taken": "20.00", "V:burette.initial": "10.00" };
    const next = (trials: typeof three) =>
      stageOf(
        withDraft(runRecord([], trials), {
          ...{ stageKey: "determine", trialId: "next", kind: "fine", texts: begun },
        }),
        "determine",
      ).guidance;
    // 25.00 mL took 20.00 mL: 20.00 mL take 16.00, from 10.00.
    expect(plain(next([aliquot("25.00", "0.00", "20.00")]))).toMatchObject({
      from: "trials",
      endNear: expect.closeTo(26, 9),
      slowAt: 24.5,
    });
    expect(plain(next([aliquot("25.00", "0.00", "20.00", { kind: "rough" })]))).toMatchObject({
      from: "rough",
      endNear: expect.closeTo(26, 9),
    });
  });

  test("knows what the running trial still lacks, and where its final reading should come", () => {
    const started = aliquot("25.00", "21.35", "40.95");
    const running = { ...started, observations: started.observations.slice(0, 2) };
    const record = runRecord(three, [
      aliquot("25.00", "0.35", "19.93"),
      aliquot("25.00", "1.71", "21.35"),
      running,
    ]);
    const evaluation = evaluateRun(record);
    expect(plain(evaluation)).toMatchObject({
      currentStage: "determine",
      next: "Final reading of trial 3 (near 41.0)",
    });
    // 21.35 + 19.61 = 40.96; 1.25 short of it, down to a half: 39.5
    expect(plain(stageOf(record, "determine").guidance)).toMatchObject({
      slowAt: 39.5,
      joins: [[expect.closeTo(19.54, 9), expect.closeTo(19.68, 9)]],
    });
  });
});

describe("the chain", () => {
  const aliquots = [
    aliquot("25.00", "0.00", "20.00"),
    aliquot("25.00", "0.00", "20.04"),
    aliquot("25.00", "0.00", "19.98"),
  ];

  test("carries the base's concentration and its ± into the acid's", () => {
    const record = runRecord(three, aliquots);
    const base = stageOf(record, "standardize");
    const acid = stageOf(record, "determine");
    // mean titer 20.00667 mL: 0.100014 · 20.00667 / 25.00 = 0.080038
    expect(acid.combined?.quantity.value.toFixed(5)).toBe("0.08004");
    const fromBase = acid.shares.find((s) => s.from?.stage === "standardize")?.part ?? 0;
    const relative = (s: TitrationEvaluation) =>
      standardUncertainty(s.combined!.quantity) / (s.combined?.quantity.value ?? 1);
    expect(Math.sqrt(fromBase) * relative(acid)).toBeCloseTo(relative(base), 9);
    expect(evaluateRun(record).chain.map((b) => b.state)).toEqual(["done", "done", "current"]);
  });

  test("is worked out step by step, and each step opens to where its numbers come from", () => {
    const record = runRecord(three, aliquots);
    const evaluation = evaluateRun(record);
    const board = workingOf(record, evaluation, "standardize", null);
    expect(plain(board?.steps.map((s) => [s.id, s.valueText]))).toEqual([
      ["m", "0.5106 ± 0.0003 g"],
      ["V", "25.00 ± 0.05 mL"],
      ["n_s", "2.50022 mmol"],
      ["n_b", "2.50022 mmol"],
      ["c_b", "0.100009 mol/L"],
      ["mean", "0.100014 mol/L"],
      ["uncertainty", "0.00010 mol/L"],
      ["result", plain(evaluation.chain[0]?.fact)],
    ]);
    expect(board?.steps[4]?.numbers).toBe("= \\dfrac{2.50022~\\text{mmol}}{25.00~\\text{mL}}");
    const second = workingOf(record, evaluation, "determine", null);
    expect(second?.steps.flatMap((s) => s.inputs.map((i) => i.origin.kind))).toEqual([
      "readings",
      "stage",
      "equation",
      "readings",
    ]);
  });

  test("purity is taken as presumed until it is read", () => {
    const record = runRecord(three);
    const [standardize, ...rest] = record.stages;
    const read = {
      ...three[0]!.observations[0]!,
      id: "P",
      symbol: "P",
      kind: "purity" as const,
      value: "99.00",
    };
    const pure = stageOf(record, "standardize").combined?.quantity.value ?? NaN;
    const less = stageOf(
      { ...record, stages: [{ ...standardize!, observations: [read] }, ...rest] },
      "standardize",
    ).combined?.quantity.value;
    expect(less).toBeCloseTo(0.99 * pure, 12);
  });
});

test("house rules set what closes a set", () => {
  const strict = { ...defaultHouseRules, agreement: { ...defaultHouseRules.agreement, withinMl: "0.02" } };
  expect(stageOf(runRecord(three, [], strict), "standardize").verdict.state).toBe("collecting");
});
