import { describe, expect, test } from "@jest/globals";
import { inUnit, standardUncertainty } from "~/core/quantity";
import { type CalibrationEvaluation, footingWords, type TitrationEvaluation } from "~/core/stages";
import { checkField, type Method, stageFields, trialFields, temperatureChecks } from "~/core/method";
import { evaluateRun } from "~/core/evaluate";
import { type HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { workingOf } from "~/core/working";

import { offered as methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { titer, type Typed, type TypedStage, typedRun } from "../testing/typed-run";
import { plain } from "../testing/plain";

/* What is shown is what is counted: presumed values, ± that nobody stated, blanks, rooms, glass, and results by their names. */

const method = (id: string): Method => methods.find((m) => m.id === id)!;
const one = { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } } as const;
const run = (id: string, stages: Record<string, TypedStage>, rules: Partial<HouseRules> = {}) =>
  typedRun(method(id), stages, { ...one, ...rules });
const stageOf = (record: RunRecord, key: string) => {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  if (!stage) throw new Error(`no stage ${key}`);
  return stage;
};
const titration = (record: RunRecord, key: string) => stageOf(record, key) as TitrationEvaluation;
const aliquot = (ml: string, final: string, symbol = "V_a"): Typed => ({
  [`${symbol}:volume.taken`]: ml,
  ...titer(final),
});

describe("what nobody stated", () => {
  const drink = (once: Typed) =>
    titration(
      run("sulfur-dioxide", { determine: { once, trials: [aliquot("20.00", "4.00")] } }),
      "determine",
    );
  const fromBase = (stage: TitrationEvaluation) =>
    [...stage.combined!.quantity.sensitivities.values()].find((s) => s.leaf.kind === "given");

  test("a presumed concentration is told beside the result, in the verdict and in what follows from it", () => {
    const presumed = drink({});
    expect(plain(presumed.restsOn)).toEqual(["a presumed concentration of the iodine"]);
    expect(plain(presumed.verdict.reason)).toMatch(/It rests on a presumed concentration of the iodine\.$/);
    expect(fromBase(presumed)?.leaf.u).toBeCloseTo(0.00005 / Math.sqrt(3), 12);
    const chained = run("acid-by-carbonate-then-base", {
      standardize: { trials: [{ "m:mass.before": "2.1325", "m:mass.after": "2.0000", ...titer("25.00") }] },
      determine: { trials: [aliquot("25.00", "20.00", "V_b")] },
    });
    expect(plain(stageOf(chained, "determine").restsOn)).toEqual(["a presumed purity of the carbonate"]);
  });

  test("typing over a value clears its ±, and the result says that none is counted", () => {
    const bare = drink({ "c_i:given": "0.0100" });
    expect(fromBase(bare)).toBeUndefined();
    expect(plain(footingWords(bare))).toBe(
      "Not counted in the ±: the ± of concentration of the iodine, which is not stated.",
    );
    const stated = drink({ "c_i:given": "0.0100", "c_i:given.plus-minus": "0.0001" });
    expect(plain([footingWords(stated), fromBase(stated)?.leaf.u])).toEqual([
      "",
      expect.closeTo(0.0001 / Math.sqrt(3), 12),
    ]);
    const pure = (once: Typed) =>
      stageOf(
        run("permanganate-by-oxalate", {
          standardize: {
            once,
            trials: [{ "m:mass.before": "2.2000", "m:mass.after": "2.0000", ...titer("30.00") }],
          },
        }),
        "standardize",
      );
    expect(plain(footingWords(pure({ "P:purity": "99.9" })))).toMatch(
      /the ± of purity of the oxalate, which is not stated/,
    );
  });

  test("a dilution that is presumed is asked about before a trial counts; confirmed, or another, it counts", () => {
    const trials = [aliquot("25.00", "20.00")];
    const open = titration(
      run("peroxide-by-volume", { determine: { trials, unconfirmed: true } }),
      "determine",
    );
    expect([open.combined, open.done, open.trials[0]?.eligible]).toEqual([null, false, false]);
    expect(plain(open.verdict.reason)).toMatch(
      /^Peroxide taken: 10\.00 mL is presumed; Diluted in a flask of: 250\.0 mL is presumed\. Confirm them/,
    );
    const value = (once: Typed) =>
      inUnit(
        titration(run("peroxide-by-volume", { determine: { once, trials } }), "determine").combined!.quantity,
        "mol/L",
      );
    // An undiluted peroxide is a twenty-fifth of the diluted one.
    expect(value({}) / value({ "V_0:volume.taken": "25.00", "V_f:volume.taken": "25.00" })).toBeCloseTo(
      25,
      9,
    );
    // A finished run of before keeps its result, and says what it rests on.
    const finished = {
      ...run("peroxide-by-volume", { determine: { trials, unconfirmed: true } }),
      status: "finished" as const,
    };
    expect(plain(stageOf(finished, "determine").restsOn)).toContainEqual(
      expect.stringMatching(/^a presumed volume \(peroxide taken: [\d.]+ mL\)$/),
    );
  });

  test("calibrations and unknowns ask likewise", () => {
    const flask = (ml: string, a: string): Typed => ({ "V_s:volume.taken": ml, "A:absorbance": a });
    const record = run("iron-with-phenanthroline", {
      standards: {
        unconfirmed: true,
        trials: [flask("0.00", "0.000"), flask("5.00", "0.400"), flask("10.00", "0.801")],
      },
      unknown: { trials: [{ "V_u:volume.taken": "25.00", "A:absorbance": "0.400" }] },
    });
    expect(plain(stageOf(record, "standards"))).toMatchObject({ done: false, quantity: null });
    expect(plain(stageOf(record, "unknown").problem)).toMatch(/Made up to: 50\.00 mL is presumed/);
  });
});

describe("the blank of a photometer", () => {
  const series = ["0.00", "2.00", "4.00", "6.00", "8.00"];
  /** Iron by standard addition, each cuvette 0.030 too high with its blank. */
  const additions = (choices: Record<string, string>, readings?: "deducted") => {
    const base = method("iron-by-standard-addition");
    const changed: Method = {
      ...base,
      stages: base.stages.map((s) =>
        s.kind === "calibration" && readings
          ? { ...s, inputs: s.inputs.map((i) => (i.is === "blank" ? { ...i, readings } : i)) }
          : s,
      ),
    };
    const trials = series.map((ml, i): Typed => ({
      "V_s:volume.taken": ml,
      "A:absorbance": (0.23 + 0.145 * i + [0, 0.001, -0.001, 0.001, -0.001][i]!).toFixed(3),
    }));
    const record = typedRun(
      changed,
      { additions: { once: { "A_0:absorbance": "0.030" }, trials, choices } },
      one,
    );
    return { record, stage: stageOf(record, "additions") as CalibrationEvaluation };
  };

  test("that is not zero is asked about, and nothing passes until that is answered", () => {
    const { stage } = additions({});
    expect(plain(stage.blankQuestion)).toMatch(/The blank reads 0\.030, not zero/);
    expect([stage.done, stage.next]).toEqual([false, stage.blankQuestion]);
    const kept = additions({ blank: "zeroed" }).stage;
    expect(plain([kept.blankQuestion, kept.done])).toEqual([null, true]);
  });

  test.each([
    [{ blank: "deducted" }, undefined],
    [{}, "deducted" as const],
  ] as const)(
    "is deducted with its ± (%j, the method says %s), and takes what it added with it",
    (choices, expected) => {
      const { stage, record } = additions(choices, expected);
      const zeroed = additions({ blank: "zeroed" }).stage;
      // 0.030 less at the axis: x falls by 0.030 over the slope, 15 % of it.
      const ratio = stage.quantity!.value / zeroed.quantity!.value;
      expect(ratio).toBeCloseTo((0.23 - 0.03) / 0.23, 2);
      expect(stage.deducted).toBeCloseTo(0.03, 12);
      const blank = [...stage.quantity!.sensitivities.values()].find((s) => s.leaf.kind === "blank")!;
      // One reading, rounded to thousandths; dx/dA₀ = -1/b.
      const slope = stage.symbols.get("b")!.value;
      const perSample = stage.quantity!.value / stage.symbols.get("c_x")!.value;
      expect(blank.leaf.u).toBeCloseTo(0.0005 / Math.sqrt(3), 9);
      expect(blank.by / (-perSample / slope)).toBeCloseTo(1, 3);
      expect(workingOf(record, evaluateRun(record), "additions", null)?.steps.map((s) => s.id)).toContain(
        "blank",
      );
    },
  );

  test("cancels where both line and unknown have it and the line has an intercept; through the origin it does not", () => {
    const trials = ["2.00", "4.00", "6.00", "8.00", "10.00"].map((ml, i): Typed => ({
      "V_s:volume.taken": ml,
      "A:absorbance": (0.05 + 0.158 * (i + 1) + [0.001, -0.001, 0, 0.001, -0.001][i]!).toFixed(3),
    }));
    const found = (choices: Record<string, string>) => {
      const record = run("iron-with-phenanthroline", {
        standards: { once: { "A_0:absorbance": "0.050" }, trials, choices },
        unknown: { trials: [{ "V_u:volume.taken": "25.00", "A:absorbance": "0.366" }] },
      });
      const unknown = stageOf(record, "unknown");
      return unknown.kind === "unknown" ? inUnit(unknown.combined!.quantity, "mg/L") : NaN;
    };
    expect(found({ blank: "deducted" })).toBeCloseTo(found({ blank: "zeroed" }), 9);
    // 0.316/0.158 · 0.8 mg/L · 2 = 3.2
    expect(found({ blank: "deducted", model: "origin" })).toBeCloseTo(3.2, 1);
    expect(Math.abs(found({ blank: "zeroed", model: "origin" }) - 3.2)).toBeGreaterThan(0.2);
  });
});

describe("a room that is not at 20 °C", () => {
  const at = (labC: string) => ({ temperature: { ...defaultHouseRules.temperature, labC } });

  test("a solution made up in a warm room is stronger at 20 °C by 2.1e-4 a degree; a ratio of volumes does not move", () => {
    const made = (labC: string) =>
      stageOf(
        run(
          "base-by-phthalate-solution",
          {
            prepare: { once: { "m:mass.before": "7.1056", "m:mass.after": "2.0000" } },
          },
          at(labC),
        ),
        "prepare",
      );
    const value = (labC: string) => {
      const stage = made(labC);
      return stage.kind === "preparation" ? stage.quantity!.value : NaN;
    };
    expect(value("28") / value("20")).toBeCloseTo(1 / (1 - 2.1e-4 * 8), 12);
    const ratio = (labC: string) =>
      titration(
        run("acid-by-base", { determine: { trials: [aliquot("25.00", "20.00")] } }, at(labC)),
        "determine",
      );
    expect(ratio("28").combined!.quantity.value).toBeCloseTo(ratio("20").combined!.quantity.value, 12);
    expect(ratio("28").trials[0]?.titerMl).toBeCloseTo(20, 12);
  });

  test("the working shows both volumes, and the guidance speaks of what the burette shows", () => {
    const record = run("acid-by-base", { determine: { trials: [aliquot("25.00", "20.00")] } }, at("28"));
    const steps = workingOf(record, evaluateRun(record), "determine", null)!.steps;
    expect(steps.map((s) => s.id)).toEqual(expect.arrayContaining(["room", "V", "V-corrected"]));
    expect(plain(steps.find((s) => s.id === "V")?.valueText)).toMatch(/^20\.00 ± /);
    expect(plain(steps.find((s) => s.id === "V-corrected")?.valueText)).toBe("19.966 mL");
    expect(titration(record, "determine").guidance?.titerMl).toBeCloseTo(20, 6);
  });
});

test("an indicator that turns late is taken off each titer, as one cause, and stands in the working", () => {
  const onTime = method("acid-by-base");
  const late: Method = {
    ...onTime,
    stages: onTime.stages.map((s) =>
      s.kind === "titration"
        ? {
            ...s,
            inputs: s.inputs.map((i) =>
              i.is === "titer" ? { ...i, bias: { ml: "0.05", plusMinus: "0.02" } } : i,
            ),
          }
        : s,
    ),
  };
  const record = typedRun(late, {
    determine: { trials: ["20.00", "20.04", "20.02"].map((v) => aliquot("25.00", v)) },
  });
  const stage = titration(record, "determine");
  // 0.1000 · (20.02 - 0.05) / 25.00
  expect(inUnit(stage.combined!.quantity, "mol/L")).toBeCloseTo((0.1 * 19.97) / 25, 9);
  expect(stage.trials[0]?.titerMl).toBeCloseTo(20, 9);
  const bias = stage.combined!.quantity.sensitivities.get("indicator-bias:determine")!;
  expect(bias.leaf.u * Math.abs(bias.by)).toBeCloseTo(((0.02 / Math.sqrt(3)) * 0.1) / 25, 9);
  const corrected = workingOf(record, evaluateRun(record), "determine", null)?.steps.find(
    (s) => s.id === "V-corrected",
  );
  expect(plain([corrected?.title, corrected?.formula])).toEqual([
    "The same without the bias of the indicator",
    "V = (20.00 - 0.05)",
  ]);
});

describe("results by their names", () => {
  const charcoal = run("acetic-acid-on-charcoal", {
    start: { trials: [aliquot("5.00", "25.20")] },
    "bottle-1": { once: { "m:mass.tared": "1.0000" }, trials: [aliquot("10.00", "45.00")] },
  });
  const working = workingOf(charcoal, evaluateRun(charcoal), "bottle-1", null)!;

  test("what a stage handed on is shown with its own number, in the working and in the shares", () => {
    const origins = working.steps
      .flatMap((s) => s.inputs)
      .flatMap((i) => (i.origin.kind === "stage" ? [[i.key, i.origin.text]] : []));
    expect(plain(Object.fromEntries(origins))).toMatchObject({
      c_0: expect.stringMatching(/^0\.504/),
      c_b: expect.stringMatching(/^0\.1000/),
    });
    const stage = titration(charcoal, "bottle-1");
    const base = stage.shares.find((s) =>
      s.leaves.some((l) => plain(l.label) === "Concentration of the base"),
    );
    expect(plain(base?.label)).toBe("Concentration of the base");
    expect(stage.also.map((a) => a.definition.unit)).toEqual(["mmol/g", "mg/g", "mmol/g", "mL/g"]);
  });

  test("a normality that the method gives is not given twice", () => {
    const record = run(
      "permanganate-by-iron",
      {
        standardize: { trials: [{ "m:mass.before": "2.7000", "m:mass.after": "2.0000", ...titer("18.00") }] },
      },
      { words: { ...defaultHouseRules.words, normality: true } },
    );
    expect(stageOf(record, "standardize").also.filter((a) => a.definition.unit === "N")).toHaveLength(1);
  });

  test("absorbance for a hundredth of a percent of ethanol is a hundredth of that for one", () => {
    const drops = (n: string, a: string): Typed => ({ "d:given": n, "A:absorbance": a });
    const record = run("ethanol-by-dichromate", {
      drop: { once: { "m:mass.tared": "4.9200", "N:given": "100" } },
      standards: { trials: [drops("0", "0.000"), drops("10", "0.360"), drops("20", "0.720")] },
    });
    // A drop is 0.05 mL: 20 of them make 0.2 % v/v in 50 mL, which reads 0.720: 0.036 for 0.01 %.
    expect(stageOf(record, "standards").shown?.value).toMatch(/^0\.0360/);
  });
});

describe("conditions and weighings", () => {
  test("drying is not asked of the flask", () => {
    for (const id of ["acid-by-carbonate-then-base", "base-by-phthalate-then-acid"]) {
      const [stage] = method(id).stages;
      if (stage?.kind !== "titration") throw new Error("no titration");
      expect(temperatureChecks(stage, 22)).toEqual([]);
      expect(trialFields(stage, defaultHouseRules).map((f) => f.kind)).not.toContain("temperature.flask");
    }
    const hot = method("permanganate-by-oxalate").stages[0];
    if (hot?.kind !== "titration") throw new Error("no titration");
    expect(temperatureChecks(hot, 22)).toHaveLength(1);
  });

  test("what is counted or chosen has no ±; what is stated of a flask can have one", () => {
    const kinds = (id: string, key: string) => {
      const stage = method(id).stages.find((s) => s.key === key);
      if (!stage) throw new Error("no stage");
      return [...stageFields(stage, defaultHouseRules), ...trialFields(stage, defaultHouseRules)].map(
        (f) => `${f.symbol}:${f.kind}`,
      );
    };
    expect(kinds("ethanol-by-dichromate", "drop")).not.toContain("N:given.plus-minus");
    expect(kinds("ethanol-by-dichromate", "standards")).not.toContain("d:given.plus-minus");
    expect(kinds("copper-with-ammonia", "wavelength")).toEqual(["λ:given"]);
    expect(kinds("fading-of-a-dye", "fading")).toContain("c_B:given.plus-minus");
  });

  test("buoyancy is corrected for every weighing of a known solid, and said where no density is stated", () => {
    const heavy = { balance: { ...defaultHouseRules.balance, correctBuoyancy: true } };
    const flask: Typed = { "m:mass.before": "2.5106", "m:mass.after": "2.0000", ...titer("25.00") };
    const c = (rules: Partial<HouseRules>) =>
      titration(
        run("base-by-phthalate-then-acid", { standardize: { trials: [flask] } }, rules),
        "standardize",
      );
    // (1 - 0.0012/8) / (1 - 0.0012/1.64)
    expect(c(heavy).combined!.quantity.value / c({}).combined!.quantity.value).toBeCloseTo(
      (1 - 0.00015) / (1 - 0.0012 / 1.64),
      9,
    );
    // The working says both masses: 0.5106 g as shown, 0.5106 · 1.00058 = 0.51090 g.
    const record = run("base-by-phthalate-then-acid", { standardize: { trials: [flask] } }, heavy);
    const steps = workingOf(record, evaluateRun(record), "standardize", null)!.steps;
    expect(plain(steps.find((s) => s.id === "m")?.valueText)).toMatch(/^0\.5106 ± /);
    expect(plain(steps.find((s) => s.id === "m-corrected")?.valueText)).toBe("0.51090 g");
    const unknown = stageOf(
      run("diprotic-solid-acid", { determine: { trials: [flask] } }, heavy),
      "determine",
    );
    expect(plain(footingWords(unknown))).toMatch(
      /Not corrected for buoyancy, since no density is stated: mass of acid\./,
    );
    const masses = methods.flatMap((m) =>
      m.stages.flatMap((s) => s.inputs.flatMap((i) => (i.is === "mass" ? [i] : []))),
    );
    // Samples whose kind nobody knows are left.
    expect([...new Set(masses.filter((i) => i.densityGPerMl === undefined).map((i) => i.of))].sort()).toEqual(
      ["the acid", "the solid"],
    );
  });

  test("a blank of 0.00 mL is a titer, after a question; a concentration from no titer is none", () => {
    const check = (id: string, key: string) => {
      const stage = method(id).stages.find((s) => s.key === key);
      if (stage?.kind !== "titration") throw new Error("no titration");
      const field = trialFields(stage, defaultHouseRules).find(
        (f) => f.symbol === "V" && f.kind === "burette.final",
      )!;
      const record = typedRun(method(id), { [key]: { trials: [{ "V:burette.initial": "1.20" }] } });
      const holder = record.stages[0]!.trials[0]!;
      return checkField(field, "1.20", { stage, houseRules: defaultHouseRules, holder });
    };
    const blank = check("kappa-number", "blank");
    expect(blank.ok && blank.value.cautions.map((c) => c.kind)).toContain("zero");
    expect(plain(check("base-by-phthalate-then-acid", "standardize"))).toMatchObject({ ok: false });
    const none = stageOf(run("kappa-number", { blank: { trials: [titer("0.00")] } }), "blank");
    expect([none.shown?.value, none.done]).toEqual([expect.stringMatching(/^0\.00/), true]);
    expect(
      standardUncertainty(none.kind === "titration" ? none.combined!.quantity : (null as never)),
    ).toBeGreaterThan(0);
  });
});
