import { describe, expect, test } from "@jest/globals";
import { standardUncertainty, toDecimals } from "~/core/quantity";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import type { TitrationEvaluation } from "~/core/stages";
import { backTitration } from "../testing/shapes/complexometric";
import { baseByPhthalateSolution } from "~/catalog/methods/acid-base/base-by-phthalate-solution";
import { reverse } from "../testing/shapes/acid-base";
import { blankDifference } from "../testing/shapes/redox";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { flask, runRecord } from "../testing/build-record";
import { titer, type Typed, typedRun } from "../testing/typed-run";
import { plain } from "../testing/plain";

function stageOf(record: RunRecord, key = "determine"): TitrationEvaluation {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  if (stage?.kind !== "titration") throw new Error("no such stage");
  return stage;
}

const aliquot = (final: string, ml = "25.00"): Typed => ({ "V_a:volume.taken": ml, ...titer(final) });
const titers = (finals: readonly string[], rules: Partial<HouseRules> = {}) =>
  stageOf(typedRun(reverse, { determine: { trials: finals.map((f) => aliquot(f)) } }, rules));
const verdictOf = ({ verdict }: TitrationEvaluation) =>
  [verdict.state, verdict.reason, verdict.next] as const;

describe("each school's rule closes a set in its own way, and says so", () => {
  const withinOfMean: HouseRules["agreement"] = { rule: "within-of-mean", replicates: 3, withinMl: "0.05" };
  const identical: HouseRules["agreement"] = { rule: "identical", replicates: 2 };
  const relative: HouseRules["agreement"] = { rule: "relative-spread", replicates: 3, partsPerThousand: "2" };
  const twoElseThird: HouseRules["agreement"] = { rule: "two-else-third", withinMl: "0.20" };

  test.each<[string, HouseRules["agreement"], string[], string, RegExp, RegExp]>([
    [
      "within ± of the mean, agreed",
      withinOfMean,
      ["25.00", "25.04", "25.09"],
      "agreed",
      /lie within 0\.09 mL.*three within ±0\.05 mL of their mean/,
      /Go on/,
    ],
    [
      "within ± of the mean, one to go",
      withinOfMean,
      ["25.00", "25.08", "25.20"],
      "collecting",
      /Trials 1 and 2 lie within 0\.08 mL.*Trial 3 is left out/,
      /One more trial between 25\.01 and 25\.07 mL closes/,
    ],
    [
      "identical, agreed",
      identical,
      ["25.00", "25.05", "25.00"],
      "agreed",
      /Trials 1 and 3 agree to the last digit/,
      /./,
    ],
    [
      "identical, not yet",
      identical,
      ["25.00", "25.05"],
      "collecting",
      /Trials 1 and 2 disagree: they are 0\.05 mL apart/,
      /One more trial at 25\.00 mL, or at 25\.05 mL, closes/,
    ],
    [
      "relative, agreed",
      relative,
      ["25.00", "25.03", "25.05"],
      "agreed",
      /range of at most 2 ‰ of their mean/,
      /./,
    ],
    [
      "relative, not yet",
      relative,
      ["25.00", "25.03", "25.10"],
      "collecting",
      /left out/,
      /One more trial between/,
    ],
    ["two at once", twoElseThird, ["25.00", "25.20"], "agreed", /two within 0\.20 mL, else a third/, /./],
    [
      "two apart, so a third",
      twoElseThird,
      ["25.00", "25.21"],
      "collecting",
      /Trials 1 and 2 disagree: they are 0\.21 mL apart/,
      /One more trial/,
    ],
    [
      "the third decides",
      twoElseThird,
      ["25.00", "25.40", "25.35"],
      "agreed",
      /Trials 2 and 3.*Trial 1 is left out/,
      /./,
    ],
  ])("%s", (_what, agreement, finals, state, reason, next) => {
    const [s, r, n] = verdictOf(titers(finals, { agreement }));
    expect(s).toBe(state);
    expect(plain(r)).toMatch(reason);
    expect(plain(n)).toMatch(next);
  });

  test("tin and iron: two within 0.2 mL, else a third (common practice, no source)", () => {
    expect(titers(["25.00", "25.18"], { agreement: twoElseThird }).done).toBe(true);
  });
});

describe("what the rule is held against", () => {
  /** Samples so unlike that their titers say nothing: 15.00 % nickel in each. */
  const flask = (grams: number, percent: number): Typed => {
    const nickel = (grams * percent) / 100 / 58.693;
    const left = 25 - nickel / 0.05e-3;
    return {
      "m:mass.before": (12 + grams).toFixed(4),
      "m:mass.after": "12.0000",
      "V_y:volume.taken": "25.00",
      ...titer(left.toFixed(2)),
    };
  };
  const nickel = (percents: readonly [number, number][], rules: Partial<HouseRules> = {}) =>
    stageOf(typedRun(backTitration, { determine: { trials: percents.map(([g, p]) => flask(g, p)) } }, rules));

  test("results, where unlike samples of a back-titration make titers useless", () => {
    const stage = nickel([
      [0.2, 15],
      [0.25, 15],
      [0.29, 15],
    ]);
    expect(plain(stage.agreement)).toMatchObject({
      label: "result, as mL of titer",
      unit: "mL",
      closed: true,
    });
    // Titers range over 4 mL, results over a hundredth or so.
    const read = stage.trials.map((t) => t.titerMl!);
    expect(Math.max(...read) - Math.min(...read)).toBeGreaterThan(4);
    expect(stage.agreement.spread).toBeLessThan(0.03);
  });

  test("a result that is off by what 0.3 mL would make is 0.3 mL off", () => {
    const grams = 0.25;
    const perMl = (100 * 0.05e-3 * 58.693) / grams;
    const stage = nickel([
      [grams, 15],
      [grams, 15],
      [grams, 15 + 0.3 * perMl],
    ]);
    expect(plain(stage.verdict.reason)).toMatch(/Trial 3 is left out/);
    const [a, , c] = stage.trials.map((t) => t.compared!);
    expect(Math.abs(c! - a!)).toBeCloseTo(0.3, 1);
  });

  test("results by the house's wish, in their own unit where the rule is relative", () => {
    const rules: Partial<HouseRules> = {
      agreementOf: "results",
      agreement: { rule: "relative-spread", replicates: 3, partsPerThousand: "2" },
    };
    const stage = titers(["25.00", "25.03", "25.04"], rules);
    expect(plain(stage.agreement)).toMatchObject({ unit: "mol/L", closed: true });
    expect(toDecimals(stage.trials[0]!.compared!, stage.agreement.decimals)).toBe("0.1000");
    const mean = stageOf(
      typedRun(
        baseByPhthalateSolution,
        {
          prepare: { once: { "m:mass.before": "7.1", "m:mass.after": "2", "V_f:volume.taken": "250.0" } },
          standardize: { trials: [aliquot("25.00"), aliquot("12.52", "12.50"), aliquot("25.01")] },
        },
        { agreementOf: "results" },
      ),
      "standardize",
    );
    expect(mean.agreement.members).toHaveLength(3);
  });
});

describe("a test for outliers advises and leaves nothing out", () => {
  const finals = ["25.00", "25.02", "25.01", "25.00", "25.02", "26.00"];
  test.each([
    ["dixon-95", /Dixon's Q at 95 % flags trial 6 as an outlier \(0\.980, critical value 0\.625\)/],
    ["grubbs", /Grubbs' test at 5 % flags trial 6 as an outlier/],
  ] as const)("%s", (outliers, message) => {
    const stage = titers(finals, { outliers });
    expect(plain(stage.verdict.reason)).toMatch(message);
    expect(stage.trials.every((t) => t.eligible)).toBe(true);
    expect(plain(titers(finals.slice(0, 5), { outliers }).verdict.reason)).not.toMatch(/outlier/);
    expect(plain(titers(finals).verdict.reason)).not.toMatch(/outlier/);
  });
});

describe("digits", () => {
  const finals = ["26.15", "26.17", "26.14"];

  test("by the ±, or by the figures that were read, rounded once", () => {
    expect(titers(finals).shown?.value).toBe("0.10461");
    const figures = titers(finals, { digits: "significant-figures" });
    // 0.1000, 25.00 and 26.15 have four figures each.
    expect(figures.shown?.value).toBe("0.1046");
    expect(figures.trials[0]?.significance.get("c_b")?.place).toBe(-4);
    const rough = titers(["26.2", "26.1", "26.2"], {
      digits: "significant-figures",
      burette: { ...defaultHouseRules.burette, resolutionMl: "0.1", readingHalfWidthMl: "0.05" },
    });
    expect(rough.shown?.value).toBe("0.105");
    expect(Number(rough.shown?.plusMinus)).toBeGreaterThan(0);
  });
});

describe("what cannot be computed is said, and no number shown", () => {
  test("a volume of zero", () => {
    const stage = titers(["25.00"]);
    const record = typedRun(reverse, {
      determine: { trials: [{ "V_a:volume.taken": "0", ...titer("25.00") }] },
    });
    const zero = stageOf(record);
    expect(stage.combined).not.toBeNull();
    expect(zero.combined).toBeNull();
    expect(plain(zero.problem)).toMatch(
      /Concentration of the base cannot be calculated: aliquot of NaOH \(V_a\) is zero/,
    );
    expect(plain(zero.verdict)).toMatchObject({
      state: "empty",
      reason: expect.stringMatching(/is zero/) as unknown,
    });
  });

  test("a stage whose standard has no result yet", () => {
    const stage = stageOf(typedRun(blankDifference, { determine: { trials: [aliquot("16.80", "20.00")] } }));
    expect(stage.combined).toBeNull();
    const why = "Titer of the blank is not known yet: Titrate the blank has no result";
    expect(plain(stage.problem)).toBe(why);
    expect(plain(verdictOf(stage))).toEqual([
      "collecting",
      `${why}. House rule: three within 0.10 mL of each other.`,
      "Finish the earlier stage: then these trials are judged",
    ]);
    expect(plain(stage.agreement)).toMatchObject({ state: "none", members: [], windows: [], closed: false });
  });

  test("all trials struck out, one trial only, none at all", () => {
    const record = typedRun(reverse, { determine: { trials: [aliquot("25.00"), aliquot("25.02")] } });
    const struck = { at: record.startedAt, person: "bench 2", reason: "bubble" };
    const all: RunRecord = {
      ...record,
      stages: record.stages.map((s) => ({ ...s, trials: s.trials.map((t) => ({ ...t, struck })) })),
    };
    expect(plain(verdictOf(stageOf(all)))).toEqual([
      "empty",
      "All trials are struck out. House rule: three within 0.10 mL of each other.",
      "Three trials to go",
    ]);
    expect(stageOf(all).combined).toBeNull();
    expect(plain(titers(["25.00"]).verdict.reason)).toMatch(/Only trial 1 so far/);
    expect(plain(titers([]).verdict.reason)).toMatch(/No trial counts yet/);
  });

  test("numbers that are none, wherever they stand in a record", () => {
    for (const bad of ["NaN", "Infinity", "1e999", ""]) {
      const stage = stageOf(
        typedRun(reverse, { determine: { trials: [{ "V_a:volume.taken": bad, ...titer("25.00") }] } }),
      );
      expect(stage.combined).toBeNull();
      expect(stage.shown).toBeNull();
    }
  });
});

describe("what would improve a result is said by its largest cause, and would", () => {
  const roughBalance = { ...defaultHouseRules.balance, readabilityG: "0.01", linearityG: "0.01" };
  const weighed = (before: string, final: string, rules: Partial<HouseRules> = {}) =>
    stageOf(
      {
        ...runRecord([flask(before, "2.10", "0.00", final)]),
        houseRules: { ...defaultHouseRules, balance: roughBalance, ...rules },
      },
      "standardize",
    );
  const partOf = (stage: TitrationEvaluation, share: string) => {
    const q = stage.combined!.quantity;
    const part = stage.shares.find((s) => s.id === share)?.part ?? NaN;
    return (Math.sqrt(part) * standardUncertainty(q)) / q.value;
  };

  test("a rough balance: weigh twice as much, and its part is halved", () => {
    const stage = weighed("2.50", "19.60");
    expect(plain(stage.improvement?.text)).toMatch(
      /^\d+ % of the ± comes from balance\. To halve it: weighing 0\.80 g instead of 0\.40 g\.$/,
    );
    const heavier = weighed("2.90", "39.20");
    expect(partOf(heavier, "Balance") / partOf(stage, "Balance")).toBeCloseTo(0.5, 2);
  });

  test("where twice as much would not fit the burette, a stronger titrant goes with it", () => {
    expect(plain(weighed("2.70", "29.40").improvement?.text)).toMatch(
      /weighing 1\.2 g instead of 0\.60 g, with a titrant twice as strong, since 59 mL would not fit/,
    );
  });

  test("a burette: a larger titer, and its part is halved", () => {
    const fine = { balance: defaultHouseRules.balance };
    const stage = weighed("2.3000", "9.80", fine);
    expect(plain(stage.improvement?.text)).toMatch(
      /burette.*a titer near 20 mL instead of 10 mL, by twice the sample/,
    );
    const larger = weighed("2.5000", "19.60", fine);
    expect(partOf(larger, stage.improvement!.share) / partOf(stage, stage.improvement!.share)).toBeCloseTo(
      0.5,
      2,
    );
  });

  test("what an earlier stage or a certificate brings in is named", () => {
    expect(plain(titers(["25.00", "25.02", "25.01"]).improvement?.text)).toMatch(
      /^\d+ % of the ± comes from concentration of the acid\. To halve it: knowing concentration of the acid with half that ±\.$/,
    );
  });
});
