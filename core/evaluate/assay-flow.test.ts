import { describe, expect, test } from "@jest/globals";
import { planMethod, shoppingList } from "~/core/plan";
import { unitsLike } from "~/core/quantity";
import { mustHold } from "~/core/result";
import {
  type CalibrationStage,
  checkField,
  type RateStage,
  trialFields,
  type UnknownStage,
} from "~/core/method";
import {
  compiledMethod,
  presumedRate,
  quietPhotometer,
  usualAbsorbance,
  usualConstant,
  nextCuvette,
} from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import { isEmptyRun, type RunRecord } from "~/core/run";
import { type Observation, readingsOf } from "~/core/record";
import { simulateRun } from "~/core/simulate";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { type TypedStage, typedRun } from "../testing/typed-run";
import { plain } from "../testing/plain";

const copper = methods.find((m) => m.id === "copper-with-ammonia")!;
const series = ["2.00", "4.00", "6.00", "8.00", "10.00"];

const flasks = (count: number, shown: (ml: number) => string) =>
  series.slice(0, count).map((ml) => ({ "V_s:volume.taken": ml, "A:absorbance": shown(Number(ml)) }));

const straight = (ml: number) => (0.069 * ml + (ml % 4 ? 0.001 : -0.001)).toFixed(3);

const run = (stages: Readonly<Record<string, TypedStage>>, rules: Partial<HouseRules> = {}): RunRecord =>
  typedRun(copper, { wavelength: {}, standards: {}, unknown: {}, ...stages }, rules);

const chosen = { wavelength: { once: { "λ:given": "620" } } } as const;

describe("an assay as its chain of beads tells it", () => {
  const shown = (record: RunRecord) => {
    const { chain, next, state } = evaluateRun(record);
    return { facts: chain.map((b) => b.fact), next, state };
  };

  test("just begun: the wavelength is to be chosen", () => {
    expect(plain(shown(run({})))).toEqual({
      facts: ["not chosen yet", "", "", ""],
      next: "Wavelength",
      state: "just begun",
    });
    expect(isEmptyRun(typedRun(copper, { wavelength: {} }))).toBe(true);
  });

  test("at the standards: how many of them are read, and which comes next", () => {
    const begun = shown(
      run({ ...chosen, standards: { once: { "A_0:absorbance": "0.000" }, trials: flasks(2, straight) } }),
    );
    expect(plain(begun)).toEqual({
      facts: ["620 nm", "2 of 5 read", "", ""],
      next: "Next: the flask with 6.00 mL. Rinse the cuvette with it, wipe it, read it",
      state: "stage 2 of 4",
    });
  });

  test("at the unknown, and when all of it stands", () => {
    const standards = { once: { "A_0:absorbance": "0.000" }, trials: flasks(5, straight) };
    const waiting = shown(run({ ...chosen, standards }));
    expect(plain(waiting.facts[1])).toMatch(/^5\d\.\d+ ± \d\.\d+ L\/\(mol·cm\)$/);
    expect(plain(waiting.next)).toBe("Read the unknown: rinse the cuvette with it first, and wipe it");
    const half = shown(run({ ...chosen, standards, unknown: { trials: [{ "V_u:volume.taken": "5.00" }] } }));
    expect(plain(half.next)).toBe("Read flask 1: rinse the cuvette with it first, and wipe it");
    const whole = shown(
      run({
        ...chosen,
        standards,
        unknown: { trials: [{ "V_u:volume.taken": "5.00", "A:absorbance": "0.351" }] },
      }),
    );
    expect(plain(whole.state)).toBe("ready to conclude");
    expect(plain(whole.facts[2])).toMatch(/^2\.0\d ± 0\.0\d g\/L$|^2\.0\d+ ± 0\.0\d+ g\/L$/);
  });
});

test("By significant figures the mass of copper has those that its readings bear", () => {
  const record = run(
    {
      ...chosen,
      standards: { once: { "A_0:absorbance": "0.000" }, trials: flasks(5, straight) },
      unknown: { trials: [{ "V_u:volume.taken": "5.00", "A:absorbance": "0.351 0.350" }] },
    },
    { digits: "significant-figures" },
  );
  const stage = evaluateRun(record).stages.find((s) => s.kind === "unknown");
  if (stage?.kind !== "unknown") throw new Error("no unknown");
  // Read off to about 0.01 mL of 5, and 5.00 mL taken: three figures.
  expect(stage.trials[0]?.shownResult?.value).toMatch(/^2\.0\d$/);
});

describe("readings of one cuvette", () => {
  const observation = (id: string, more: Partial<Observation> = {}): Observation => ({
    id,
    symbol: "A",
    kind: "absorbance",
    text: "0.300",
    value: "0.300",
    unit: "",
    source: "typed",
    person: "bench 1",
    at: "2026-11-25T09:00:00.000Z",
    supersedes: null,
    reason: null,
    ...more,
  });

  test("are the first entries with what became of them: corrected, struck out, taken back", () => {
    const readings = readingsOf(
      [
        observation("a"),
        observation("b", { text: "0.310", value: "0.310" }),
        observation("c"),
        observation("a2", {
          text: "0.301",
          value: "0.301",
          supersedes: "a",
          reason: "misread",
          person: "bench 2",
        }),
        observation("b2", { text: "", value: null, supersedes: "b", reason: "bubble", person: "bench 3" }),
        observation("c2", { text: "", value: null, supersedes: "c", reason: "taken back" }),
        observation("d", { kind: "transmittance", text: "50.0", value: "50.0", unit: "%" }),
        observation("e", { kind: "absorbance.again" }),
        observation("f", { symbol: "A_0" }),
      ],
      "A",
    );
    expect(readings.map((r) => [r.id, r.text, r.person, r.struck?.reason ?? null])).toEqual([
      ["a2", "0.301", "bench 1", null],
      ["b2", "0.310", "bench 1", "bubble"],
      ["d", "50.0", "bench 1", null],
    ]);
    expect(readings[2]?.absorbance).toBeCloseTo(0.30103, 5);
  });
});

describe("what goes into the light next", () => {
  const standing = (record: RunRecord) => {
    const stage = evaluateRun(record).stages.find((s) => s.kind === "calibration");
    if (stage?.kind !== "calibration") throw new Error("no calibration");
    return stage;
  };

  test("the blank, then a flask begun and not read, then those ahead", () => {
    expect(nextCuvette(standing(run(chosen)), "bench 2")).toEqual({ what: "blank" });
    const begun = run({
      ...chosen,
      standards: { once: { "A_0:absorbance": "0.000" }, trials: [{ "V_s:volume.taken": "4.00" }] },
    });
    expect(nextCuvette(standing(begun), "bench 2")).toEqual({ what: "flask", id: "standards-1" });
    const two = run({
      ...chosen,
      standards: { once: { "A_0:absorbance": "0.000" }, trials: flasks(2, straight) },
    });
    expect(nextCuvette(standing(two), "bench 2")).toEqual({ what: "ahead", value: "6.00" });
  });

  test("when all are read: for each person the flask that this person has read least; for nobody, nothing", () => {
    const all = run({
      ...chosen,
      standards: { once: { "A_0:absorbance": "0.000" }, trials: flasks(5, straight) },
    });
    const stage = all.stages.find((s) => s.key === "standards")!;
    const first = stage.trials[0]!.observations.find((o) => o.kind === "absorbance")!;
    stage.trials[0]!.observations.push({ ...first, id: "again", person: "bench 7" });
    expect(nextCuvette(standing(all), "bench 2")).toEqual({ what: "flask", id: "standards-1" });
    expect(nextCuvette(standing(all), "bench 7")).toEqual({ what: "flask", id: "standards-2" });
    expect(nextCuvette(standing(all))).toEqual({ what: "another" });
  });
});

describe("a reading of the photometer that is checked", () => {
  const stage = copper.stages.find((s) => s.kind === "calibration") as CalibrationStage;
  const checked = (kind: string, text: string) => {
    const field = trialFields(stage, defaultHouseRules).find((f) => f.kind === kind)!;
    return checkField(field, text, { stage, houseRules: defaultHouseRules, holder: { observations: [] } });
  };

  test("below zero it passes with a caution; far below, and far above, it does not", () => {
    expect(plain(checked("absorbance", "-0.012"))).toMatchObject({
      ok: true,
      value: { cautions: [{ message: "-0.012 is below zero: zero on the blank again?" }] },
    });
    expect(plain(checked("absorbance", "-0.003"))).toMatchObject({ ok: true, value: { cautions: [] } });
    expect(plain(checked("absorbance", "-0.8"))).toMatchObject({ ok: false });
    expect(plain(checked("absorbance", "62.3"))).toMatchObject({
      ok: false,
      problem: { message: "62.3 is more than 4, the most possible. Is it a transmittance in percent?" },
    });
    expect(plain(checked("transmittance", "62.3"))).toMatchObject({ ok: true });
    expect(plain(checked("transmittance", "0"))).toMatchObject({ ok: false });
  });

  test("a check at the end is asked of standards alone", () => {
    const unknown = copper.stages.find((s) => s.kind === "unknown") as UnknownStage;
    const kinds = (s: CalibrationStage | UnknownStage) =>
      trialFields(s, defaultHouseRules).map((f) => f.kind);
    expect(kinds(stage)).toContain("absorbance.again");
    expect(kinds(unknown)).not.toContain("absorbance.again");
  });
});

describe("a result in the unit that somebody asks for", () => {
  const shown = (unit: string) => {
    const record = run({
      ...chosen,
      standards: { once: { "A_0:absorbance": "0.000" }, trials: flasks(5, straight) },
      unknown: {
        trials: [{ "V_u:volume.taken": "5.00", "A:absorbance": "0.351" }],
        choices: unit === "" ? {} : { unit },
      },
    });
    const { stages, chain } = evaluateRun(record);
    return [stages.find((s) => s.kind === "unknown")?.shown?.text, chain[2]?.fact];
  };

  test("is the same amount, on the bead too; a unit of another kind is not taken", () => {
    const [usual] = shown("");
    expect(plain(usual)).toMatch(/^2\.0\d+ ± 0\.0\d+ g\/L$/);
    expect(plain(shown("mg/L"))).toEqual([
      expect.stringMatching(/^20\d\d ± \d\d mg\/L$/),
      expect.stringMatching(/^20\d\d ± \d\d mg\/L$/),
    ]);
    expect(plain(shown("% w/v")[0])).toMatch(/^0\.20\d+ ± 0\.00\d+ % w\/v$/);
    expect(plain(shown("mL")[0])).toBe(plain(usual));
  });

  test("units are offered by their kind", () => {
    expect(unitsLike("mg/L")).toEqual(["g/L", "mg/L", "µg/L", "% w/v"]);
    expect(unitsLike("mol/L")).toEqual(["mol/L", "mmol/L", "µmol/L"]);
    expect(unitsLike("L/mol·s")).toEqual(["L/mol·s"]);
  });
});

describe("what a simulated photometer is told to show", () => {
  test("goes with the amount typed, and a standard addition shows the sample when nothing is added", () => {
    const stage = copper.stages.find((s) => s.kind === "calibration") as CalibrationStage;
    expect(usualAbsorbance(stage, "10.00")).toBeCloseTo(stage.strongest, 12);
    expect(usualAbsorbance(stage, "5.00")).toBeCloseTo(stage.strongest / 2, 12);
    expect(usualAbsorbance(stage, null)).toBe(0);
    const iron = methods.find((m) => m.id === "iron-by-standard-addition")!;
    const additions = iron.stages.find((s) => s.kind === "calibration") as CalibrationStage;
    expect(usualAbsorbance(additions, "0.00")).toBeCloseTo(additions.strongest / 3, 12);
    expect(usualAbsorbance(additions, "8.00")).toBeCloseTo(additions.strongest, 12);
  });

  test("a course fades by the constant that gives the method's own result", () => {
    const dye = methods.find((m) => m.id === "fading-of-a-dye")!;
    const fading = dye.stages.find((s) => s.kind === "rate") as RateStage;
    const k = usualConstant(compiledMethod(dye), fading, new Map([["c_B", 0.05]]), presumedRate(fading));
    expect(k).toBeCloseTo(0.05 * fading.presumed, 9);
  });
});

describe("an assay that is planned", () => {
  const computed = copper.stages;
  const choices = { buretteMl: 50, benches: 5, trials: 2, marginPercent: 20, stages: {} };

  test("names its series, and what is needed of each reagent by all benches", () => {
    const plans = planMethod(compiledMethod(copper), choices);
    expect(plans.map((p) => [p.kind, p.titerMl])).toEqual([
      ["preparation", null],
      ["calibration", null],
      ["unknown", null],
    ]);
    expect(plain(plans[1]?.message)).toBe("5 standards from one stock: 2.00, 4.00, 6.00, 8.00, 10.00");
    // 30 mL in the series of each of five benches, a fifth more to spare.
    expect(plans[1]?.amounts.find((x) => x.symbol === "V_s")?.total).toBeCloseTo(5 * 30 * 1.2, 9);
    expect(plain(plans[0]?.message)).toBe("Usually 620 nm");
    const needed = (name: string) =>
      plain(shoppingList(computed, choices).find((l) => l.name.startsWith(name))?.total);
    expect(needed("copper stock")).toBe("180 mL");
    // 2.5 mL in five standards, a blank and two flasks of the unknown at each bench.
    expect(needed("ammonia")).toBe("120 mL");
    expect(needed("the sample")).toBe("60 mL");
  });
});

describe("a simulated assay", () => {
  const simulated = (seed: number) =>
    mustHold(
      simulateRun({
        method: copper,
        houseRules: defaultHouseRules,
        truth: { results: {}, amounts: { "wavelength.λ": 620 } },
        seed,
      }),
    );

  test("is the same from the same seed, another from another, read in thousandths", () => {
    expect(simulated(3)).toEqual(simulated(3));
    expect(simulated(3).record.stages).not.toEqual(simulated(4).record.stages);
    const shown = simulated(3).record.stages.flatMap((s) =>
      s.trials.flatMap((t) => t.observations.filter((o) => o.kind === "absorbance").map((o) => o.text)),
    );
    expect(shown).toHaveLength(3 * 5 + 3 * 2);
    for (const text of shown) expect(text).toMatch(/^-?\d\.\d{3}$/);
  });

  test("on a photometer without noise finds the truth to the last digit of its display", () => {
    const exact = mustHold(
      simulateRun({
        method: { ...copper },
        houseRules: defaultHouseRules,
        truth: { results: {}, amounts: { "wavelength.λ": 620 } },
        seed: 5,
        photometer: (a) => Math.round(1e6 * a) / 1e6,
      }),
    );
    const line = evaluateRun(exact.record).stages.find((s) => s.kind === "calibration");
    expect(line?.kind === "calibration" && (line.line?.fit.rSquared ?? 0) > 0.999).toBe(true);
    expect(quietPhotometer(0.5, { normal: () => 1 } as never)).toBe(0.502);
  });
});
