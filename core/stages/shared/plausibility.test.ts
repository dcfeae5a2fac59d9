import { describe, expect, test } from "@jest/globals";
import { mustHold } from "~/core/result";
import type { ComputedEvaluation } from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import type { Method } from "~/core/method";
import type { RunRecord } from "~/core/run";
import { simulateRun } from "~/core/simulate";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { titer, type Typed, type TypedStage, typedRun } from "../../testing/typed-run";
import { inEnglish } from "../../text";
import { plain } from "../../testing/plain";

/*
 * Impossible results: a sound bench is never accused, and each way in which a result can be impossible is reported, does not
 * pass as done, and says where to look first.
 */

const method = (id: string): Method => methods.find((m) => m.id === id)!;
const one = { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } } as const;

function stageOf(record: RunRecord, key: string): ComputedEvaluation {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  if (!stage) throw new Error(`no stage ${key}`);
  return stage;
}
const findings = (id: string, key: string, stages: Record<string, TypedStage>, rules = {}) =>
  stageOf(typedRun(method(id), stages, { ...one, ...rules }), key);

const weighed = (before: string, after: string, final: string): Typed => ({
  "m:mass.before": before,
  "m:mass.after": after,
  ...titer(final),
});

describe("every method", () => {
  const results = methods.flatMap((m) =>
    m.stages.flatMap((s) => ("spectra" in s && s.spectra ? [] : [[`${m.id}, ${s.title}`, s] as const])),
  );

  test.each(results)("%s says what its results can be", (_name, stage) => {
    const rules = stage.plausible ?? [];
    expect(rules.length).toBeGreaterThan(0);
    const named = (symbol: string) => rules.filter((r) => r.symbol === symbol);
    for (const { symbol, unit, nearestWhole } of [stage.result, ...(stage.also ?? [])]) {
      // A content in percent is at most all of it, one way or another.
      if (/^% (w\/w|v\/v)$/.test(unit) && symbol !== "w_s")
        expect(named(symbol).map((r) => r.rule)).toContain("at most all");
      if (nearestWhole) expect(named(symbol).map((r) => r.rule)).toContain("whole number");
    }
  });
});

describe("a content above all of it", () => {
  // 0.1000 g of a peroxide that would take 36 mL: 2.5 · 0.02 · 36 mmol · 34.01 g/mol = 61 mg... of 0.0500 g: 122 %.
  const strong = findings("peroxide-by-mass", "determine", {
    determine: { trials: [weighed("50.0000", "50.0500", "36.00")] },
  });

  test("does not pass, though the trials agree", () => {
    expect(strong.done).toBe(false);
    expect(strong.kind === "titration" && strong.verdict.state).toBe("impossible");
    expect(plain(strong.implausible)).toMatchObject([{ symbol: "w", outside: "impossible" }]);
    expect(plain(strong.implausible[0]?.text)).toMatch(
      /122\.\d ± .* % w\/w, more than all of it by more than its ±: that is impossible/,
    );
  });

  test("looks first at a titrant that is only presumed, then at the mass, and at the ratio last", () => {
    const { look } = strong.implausible[0]!;
    expect(plain(look[0])).toMatch(
      /concentration of the permanganate: it may be lower than stated; standardize it/,
    );
    expect(plain(look[1])).toMatch(/mass of peroxide: .* more was taken than is written/);
    expect(plain(look.at(-1))).toMatch(/the equation/);
  });

  test("above what the pure substance holds is impossible as well", () => {
    // 0.2 g that take 39 mL hold 0.00195 mol · 88.018 = 0.1716 g: 85.8 %; sodium oxalate holds 65.7, oxalic acid 97.8.
    const of = (grams: string, final: string) =>
      findings("oxalate-in-solid", "determine", { determine: { trials: [weighed(grams, "2.0000", final)] } });
    expect(of("2.2000", "39.00").implausible).toEqual([]);
    expect(plain(of("2.1500", "36.00").implausible[0]?.text)).toMatch(
      /more than pure oxalic acid holds, 97\.76 % w\/w/,
    );
  });
});

describe("a difference below zero, a part above its whole", () => {
  test("more left over than was added", () => {
    const back = (final: string) =>
      findings("nickel-by-back-titration", "determine", {
        blank: { trials: [{ "V_y:volume.taken": "25.00", ...titer("25.00") }] },
        determine: {
          trials: [{ "V_s:volume.taken": "10.00", "V_y:volume.taken": "25.00", ...titer(final) }],
        },
      });
    expect(back("20.00").implausible).toEqual([]);
    // Within its ±, nothing was found; beyond it, that is impossible.
    expect(back("25.02").implausible).toEqual([]);
    expect(plain(back("25.60").implausible[0])).toMatchObject({ symbol: "c", outside: "impossible" });
    expect(back("25.60").done).toBe(false);
  });

  const hardness = (calcium: string) =>
    findings("water-hardness", "calcium", {
      prepare: { once: { "m:mass.before": "5.2502", "m:mass.after": "5.0000" } },
      standardize: { trials: [{ "V_a:volume.taken": "25.00", ...titer("25.00") }] },
      total: {
        trials: [{ "V_s:burette.initial": "0.00", "V_s:burette.final": "25.00", ...titer("22.50") }],
      },
      calcium: {
        trials: [{ "V_s:burette.initial": "0.00", "V_s:burette.final": "25.00", ...titer(calcium) }],
      },
    });

  test("calcium above total hardness, judged by their difference: what both rest on is not to blame", () => {
    expect(hardness("18.00").implausible).toEqual([]);
    expect(hardness("22.55").implausible).toEqual([]);
    const [found] = hardness("23.50").implausible;
    expect(plain(found?.text)).toMatch(
      /more than total hardness, .* of which it is a part: that is impossible/,
    );
    expect(found?.look.map(inEnglish).join("; ")).not.toMatch(/EDTA/);
    expect(found?.look.map(inEnglish).join("; ")).toMatch(/titer: the end point may have been overshot/);
  });

  test("phenolphthalein alkalinity above the total", () => {
    const water = (first: string, all: string) =>
      findings("alkalinity-in-two-steps", "determine", {
        standardize: { trials: [weighed("2.1325", "2.0000", "25.00")] },
        phenolphthalein: { trials: [{ "V_w:volume.taken": "100.00", ...titer(first) }] },
        determine: { trials: [{ "V_w:volume.taken": "100.00", ...titer(all) }] },
      });
    expect(water("1.00", "2.50").implausible).toEqual([]);
    expect(plain(water("2.50", "1.00").implausible[0]?.text)).toMatch(/less than phenolphthalein alkalinity/);
    // A water that is not pink takes nothing up to pH 8.3.
    expect(
      stageOf(
        typedRun(
          method("alkalinity-in-two-steps"),
          {
            standardize: { trials: [weighed("2.1325", "2.0000", "25.00")] },
            phenolphthalein: { trials: [{ "V_w:volume.taken": "100.00", ...titer("0.00") }] },
          },
          one,
        ),
        "phenolphthalein",
      ).shown?.value,
    ).toMatch(/^0\.00/);
  });
});

describe("counts, and what a method holds for", () => {
  const electrons = (final: string) =>
    findings("oxidation-number-of-tin", "determine", {
      determine: { trials: [{ "V_a:volume.taken": "10.00", ...titer(final) }] },
    });

  test.each([
    ["20.10", "2"],
    // 1.95 is near enough: within 0.15.
    ["19.50", "2"],
    ["15.20", undefined],
    ["17.90", undefined],
  ])("%s mL are worth %s electrons", (final, whole) => {
    const stage = electrons(final);
    expect(stage.shown?.nearestWhole).toBe(whole);
    expect(stage.done).toBe(whole !== undefined);
    if (whole === undefined)
      expect(plain(stage.implausible[0]?.text)).toMatch(/no whole number lies within its ±/);
  });

  test("a pulp outside 30 to 70 % of the permanganate, and a bath outside the correction: told, not refused", () => {
    const pulp = (grams: string, final: string, celsius: string) =>
      findings("kappa-number", "determine", {
        blank: { trials: [titer("49.00")] },
        determine: {
          once: { "c_t:given": "0.2000", "c_t:given.plus-minus": "0.0005" },
          trials: [{ "w:mass.tared": grams, "t:temperature": celsius, ...titer(final) }],
        },
      });
    const sound = pulp("2.0000", "24.00", "25.0");
    expect(plain([sound.implausible, sound.done])).toEqual([[], true]);
    const little = pulp("0.6000", "42.00", "25.0");
    expect(plain(little.implausible)).toMatchObject([{ symbol: "p", outside: "invalid" }]);
    expect(plain([little.implausible[0]?.text, little.done])).toEqual([
      expect.stringMatching(/14\.0.* mL, outside the 30 to 70 mL for which this method is valid/),
      true,
    ]);
    const hot = pulp("2.0000", "24.00", "38.0");
    expect(plain(hot.kind === "titration" && hot.trials[0]?.cautions.map((c) => c.message))).toContainEqual(
      expect.stringMatching(/Temperature of the reaction is 38.* outside the 20 to 30 °C/),
    );
  });
});

test("a stage that names what is not there does not compile", () => {
  const broken = (rule: object) => {
    const m = method("acid-by-base");
    const stages = m.stages.map((s) => (s.kind === "titration" ? { ...s, plausible: [rule] } : s));
    const simulated = () =>
      mustHold(
        simulateRun({
          method: { ...m, stages } as Method,
          houseRules: defaultHouseRules,
          truth: { results: {} },
          seed: 1,
        }),
      );
    return simulated;
  };
  expect(broken({ rule: "between", symbol: "q", from: 0, unit: "mol/L" })).toThrow(/plausible-unknown/);
  expect(broken({ rule: "between", symbol: "c_a", from: 0, unit: "g" })).toThrow(/plausible-unit/);
  expect(broken({ rule: "not above", symbol: "c_a", other: "x", stage: "y" })).toThrow(
    /plausible-other-missing/,
  );
  expect(broken({ rule: "at most all", symbol: "c_a", all: "M(" })).toThrow(/relation-unreadable/);
});
