import { standardDeviation } from "../statistics";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import jStat from "jstat";
import { randomStream } from "../montecarlo";
import { exact, leaf, measured, standardUncertainty, studentT } from "../quantity";
import {
  againstLimit,
  bestConcordantSet,
  combineReplicates,
  type Concordance,
  dilutionDecision,
  dixonTest,
  grubbsCritical,
  grubbsTest,
  decidingWindows,
  joiningWindow,
  noOutlierTest,
  percentError,
  recoveryPercent,
  plusMinus,
  sharesOfVariance,
} from ".";
import { plain } from "../testing/plain";

const within = (width: number) => ({ rule: "range", width }) as const;
const titers = (...values: number[]) => values.map((value, i) => ({ id: String(i + 1), value }));

describe("best concordant set", () => {
  test("is the largest, then the tightest, and tells ties", () => {
    const set = bestConcordantSet(titers(19.58, 19.64, 20.1, 19.66, 20.12), within(0.1));
    expect(set).toMatchObject({ members: ["1", "2", "4"], low: 19.58, high: 19.66, rivals: [] });
    expect(bestConcordantSet(titers(19.5, 19.58, 20.0, 20.05), within(0.1))).toMatchObject({
      members: ["3", "4"],
    });
    expect(bestConcordantSet(titers(19.5, 19.55, 20.0, 20.05), within(0.1))?.rivals).toEqual([["3", "4"]]);
    expect(bestConcordantSet([], within(0.1))).toBeNull();
  });

  /** Common practice, no source: three within 0.1 mL of each other close a set; 19.7 and 19.3 do not agree. */
  test("takes a spread of exactly the width, whatever binary arithmetic makes of it", () => {
    expect(bestConcordantSet(titers(19.3, 19.35, 19.4), within(0.1))?.members).toHaveLength(3);
    expect(bestConcordantSet(titers(19.7, 19.3), within(0.1))?.members).toHaveLength(1);
  });

  const twelve = fc.array(fc.integer({ min: 1900, max: 1960 }), { minLength: 1, maxLength: 8 });
  const rules = fc.oneof(
    fc.integer({ min: 1, max: 30 }).map((w): Concordance => ({ rule: "range", width: w / 100 })),
    fc.integer({ min: 1, max: 30 }).map((w): Concordance => ({ rule: "from-mean", width: w / 100 })),
    fc.integer({ min: 1, max: 15 }).map((p): Concordance => ({ rule: "relative-range", part: p / 1000 })),
    fc.constant<Concordance>({ rule: "identical" }),
  );
  /** Each rule as the house would say it, written apart from the code that is tested. */
  const holds = (values: readonly number[], by: Concordance): boolean => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    if (by.rule === "identical") return high - low < 1e-9;
    if (by.rule === "range") return high - low <= by.width + 1e-9;
    if (by.rule === "relative-range") return (high - low) / mean <= by.part + 1e-10;
    return values.every((x) => Math.abs(x - mean) <= by.width + 1e-9);
  };

  test("agrees by its rule, and no longer run of neighbors does", () => {
    fc.assert(
      fc.property(twelve, rules, (hundredths, rule) => {
        const all = titers(...hundredths.map((h) => h / 100));
        const found = bestConcordantSet(all, rule)!;
        const values = all.filter(({ id }) => found.members.includes(id)).map(({ value }) => value);
        if (values.length > 1) expect(holds(values, rule)).toBe(true);
        const sorted = all.map(({ value }) => value).sort((a, b) => a - b);
        for (let from = 0; from + values.length < sorted.length; from++) {
          expect(holds(sorted.slice(from, from + values.length + 1), rule)).toBe(false);
        }
      }),
    );
  });

  test("the window for one more value is just where the set would agree with it", () => {
    fc.assert(
      fc.property(twelve, rules, fc.integer({ min: 1850, max: 2010 }), (hundredths, rule, one) => {
        const set = bestConcordantSet(titers(...hundredths.map((h) => h / 100)), rule)!;
        const members = titers(...hundredths.map((h) => h / 100)).filter(({ id }) =>
          set.members.includes(id),
        );
        const [low, high] = joiningWindow(set, rule);
        const value = one / 100;
        // A value within a hair of the edge may fall either way.
        fc.pre(Math.abs(value - low) > 1e-6 && Math.abs(value - high) > 1e-6);
        fc.pre(rule.rule !== "identical");
        const with_ = [...members.map((m) => m.value), value];
        expect(value >= low && value <= high).toBe(holds(with_, rule));
      }),
      { numRuns: 500 },
    );
  });

  test("one more replicate closes a set at just the readings that trying every one finds, for every rule", () => {
    /** The size of the best set by trying every run of neighbors, and whether another one speaks against it. */
    const tried = (values: readonly number[], by: Concordance) => {
      const sorted = [...values].sort((a, b) => a - b);
      for (let size = sorted.length; size > 1; size--) {
        const runs = sorted.slice(0, sorted.length - size + 1).flatMap((_, from) => {
          const run = sorted.slice(from, from + size);
          return holds(run, by) ? [{ from, to: from + size - 1, spread: run.at(-1)! - run[0]! }] : [];
        });
        if (runs.length === 0) continue;
        const tightest = Math.min(...runs.map((r) => r.spread));
        const best = runs.find((r) => r.spread <= tightest + 1e-9)!;
        const split = runs.some((r) => r.from > best.to || r.to < best.from);
        return { size, split };
      }
      return { size: 1, split: false };
    };
    const few = fc.array(fc.integer({ min: 1900, max: 1960 }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(few, rules, fc.integer({ min: 2, max: 4 }), (hundredths, rule, size) => {
        const values = hundredths.map((h) => h / 100);
        const windows = decidingWindows(values, rule, size, 0.01);
        const inside = (v: number) => windows.some(([low, high]) => v >= low - 1e-6 && v <= high + 1e-6);
        for (let h = 1840; h <= 2020; h++) {
          const found = tried([...values, h / 100], rule);
          const closes = found.size >= size && !found.split && tried(values, rule).size < size;
          if (tried(values, rule).size < size) expect([h, inside(h / 100)]).toEqual([h, closes]);
        }
      }),
      { numRuns: 60 },
    );
  });

  test.each([
    // 24.27 agrees with 24.18 and 24.24: the older window left it out.
    [[24.13, 24.18, 24.24], 0.1, 3, [[24.08, 24.28]]],
    [
      [24.13, 24.63],
      0.2,
      2,
      [
        [23.93, 24.33],
        [24.43, 24.83],
      ],
    ],
    [[19.3, 19.45], 0.1, 2, [[19.2, 19.55]]],
  ] as const)("%j within %d: one more closes a set of %i at %j", (values, width, size, expected) => {
    const shown = decidingWindows(values, within(width), size, 0.01).map((w) =>
      w.map((v) => Number(v.toFixed(2))),
    );
    expect(shown).toEqual(expected);
  });

  test("says where one more must lie", () => {
    const [low, high] = joiningWindow(bestConcordantSet(titers(19.58, 19.64), within(0.1))!, within(0.1));
    expect([low.toFixed(2), high.toFixed(2)]).toEqual(["19.54", "19.68"]);
  });

  test("does not depend on the order, and no larger set exists", () => {
    const values = fc.array(fc.integer({ min: 1900, max: 2000 }), { minLength: 1, maxLength: 9 });
    fc.assert(
      fc.property(values, fc.integer({ min: 0, max: 40 }), (hundredths, width) => {
        const all = titers(...hundredths.map((h) => h / 100));
        const found = bestConcordantSet(all, within(width / 100));
        const turned = bestConcordantSet([...all].reverse(), within(width / 100));
        const largest = Math.max(
          ...hundredths.map((low) => hundredths.filter((h) => h >= low && h - low <= width).length),
        );
        return found?.members.length === largest && turned?.members.join() === found.members.join();
      }),
    );
  });
});

/** Critical values as CHECKS.md gives them: Rorabacher 1991 (r10, two-sided); ASTM E178 (Grubbs, one-sided 5 %). */
describe("outliers", () => {
  const dixon = {
    90: [0.941, 0.765, 0.642, 0.56, 0.507, 0.468, 0.437, 0.412],
    95: [0.97, 0.829, 0.71, 0.625, 0.568, 0.526, 0.493, 0.466],
    99: [0.994, 0.926, 0.821, 0.74, 0.68, 0.634, 0.598, 0.568],
  } as const;
  /** n values with the given gap-to-range ratio at the upper end. */
  const gapped = (n: number, q: number) =>
    titers(...Array.from({ length: n - 1 }, (_, i) => ((1 - q) * i) / (n - 2 || 1)), 1);

  test.each([90, 95, 99] as const)("Dixon's Q at %d %%, n = 3 to 10", (confidence) => {
    dixon[confidence].forEach((critical, i) => {
      const n = i + 3;
      const beyond = dixonTest(gapped(n, critical + 0.001), confidence);
      expect(plain(beyond)).toMatchObject({ critical, exceeds: true, suspect: String(n) });
      expect(dixonTest(gapped(n, critical - 0.001), confidence)?.exceeds).toBe(false);
    });
    expect(dixonTest(titers(1, 2), confidence)).toBeNull();
    expect(dixonTest(titers(1, 1, 1), confidence)).toBeNull();
    expect(dixonTest(gapped(11, 0.99), confidence)).toBeNull();
  });

  test("Grubbs' critical values from the t distribution are those of the tables, one side named and either side", () => {
    // CHECKS.md: ASTM E178; ISO 5725-2. Some stand rounded up.
    const tables = {
      named: [1.153, 1.463, 1.672, 1.822, 1.938, 2.032, 2.11, 2.176],
      either: [1.155, 1.481, 1.715, 1.887, 2.02, 2.127, 2.215, 2.29],
    };
    for (const side of ["named", "either"] as const)
      tables[side].forEach((g, i) =>
        expect(Math.abs(grubbsCritical(i + 3, 0.05, side) - g)).toBeLessThan(0.001),
      );
    expect(plain(grubbsTest(titers(10, 10.1, 9.9, 10, 12)))).toMatchObject({ suspect: "5", exceeds: true });
    expect(grubbsTest(titers(10, 10.1, 9.9, 10))?.exceeds).toBe(false);
    expect(grubbsTest(titers(10, 10))).toBeNull();
  });

  test("at 5 % Grubbs calls one of twenty clean sets, and not one of ten; beyond ten, Dixon says that it has no table", () => {
    const random = randomStream(11);
    let called = 0;
    for (let set = 0; set < 4000; set++) {
      const advice = grubbsTest(titers(...Array.from({ length: 6 }, () => random.normal())));
      if (advice?.exceeds) called++;
    }
    expect(called / 4000).toBeGreaterThan(0.04);
    expect(called / 4000).toBeLessThan(0.06);
    expect(plain(noOutlierTest(11, "dixon-95"))).toMatch(/no critical value for 11 trials.*use Grubbs/);
    expect(plain([noOutlierTest(10, "dixon-95"), noOutlierTest(11, "grubbs")])).toEqual([null, null]);
  });

  test("t factors agree with the table and with a general-purpose library (jstat from the registry)", () => {
    // CHECKS.md: Student t, 95 % two-sided, df 1 to 5.
    expect([1, 2, 3, 4, 5].map((df) => studentT(0.95, df).toFixed(3))).toEqual([
      "12.706",
      "4.303",
      "3.182",
      "2.776",
      "2.571",
    ]);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200 }),
        fc.double({ min: 0.5, max: 0.995, noNaN: true }),
        (df, p) => {
          expect(studentT(p, df) / jStat.studentt.inv(0.5 + p / 2, df)).toBeCloseTo(1, 6);
        },
      ),
    );
  });
});

describe("acceptance", () => {
  /** Common practice, no source: 0.224 mol/L is 2.6 % below 0.23. */
  test("errors in percent, signed or not, and recovery", () => {
    expect(percentError(0.224, 0.23).toFixed(1)).toBe("-2.6");
    expect(percentError(0.224, 0.23, "absolute").toFixed(1)).toBe("2.6");
    expect(recoveryPercent(0.224, 0.23).toFixed(1)).toBe("97.4");
  });

  test("a dilution: accept, titrate what was kept, make a new one", () => {
    expect(dilutionDecision(-5, 5, 1)).toBe("accept");
    expect(dilutionDecision(5.1, 5, 1)).toBe("titrate again");
    expect(dilutionDecision(-7, 5, 2)).toBe("make again");
    expect(dilutionDecision(4, 5, 3)).toBe("accept");
  });

  test("a limit: clear only when the one-sided 95 % interval lies on one side", () => {
    const found = (value: number) =>
      measured(value, "mg/L", [{ leaf: leaf({ id: "x", label: "x", group: "x", u: 2 }), by: 1 }]);
    const limit = exact(160, "mg/L");
    // 1.645 u = 3.29 mg/L
    expect(againstLimit(found(156.6), limit).verdict).toBe("clearly below");
    expect(againstLimit(found(156.8), limit).verdict).toBe("cannot tell");
    expect(againstLimit(found(163.2), limit).verdict).toBe("cannot tell");
    expect(againstLimit(found(163.4), limit).verdict).toBe("clearly above");
    expect(againstLimit(exact(160, "mg/L"), limit).verdict).toBe("cannot tell");
  });
});

describe("combining replicates", () => {
  const shared = leaf({ id: "pipette", label: "pipette", group: "Pipette", u: 0.003 });
  const trial = (value: number, id: string) =>
    measured(value, "mol/L", [
      { leaf: shared, by: 1 },
      {
        leaf: leaf({ id: `reading ${id}`, label: "reading", group: "Readings", u: 0.001, random: true }),
        by: 1,
      },
    ]);

  test("keeps what is shared and takes the scatter over the root of n", () => {
    const values = [1.0, 1.01, 1.02];
    const combined = combineReplicates(
      values.map((v, i) => trial(v, String(i))),
      "s",
      0,
    );
    expect(combined.quantity.value).toBeCloseTo(1.01, 12);
    expect(combined.repeatability).toBeCloseTo(standardDeviation(values) / Math.sqrt(3), 12);
    expect(combined.repeatabilityFrom).toBe("scatter");
    expect(combined.systematic).toBeCloseTo(0.003, 12);
    expect(standardUncertainty(combined.quantity)).toBeCloseTo(Math.hypot(0.01 / Math.sqrt(3), 0.003), 12);
    const parts = sharesOfVariance(combined.quantity);
    expect(plain(parts.map((p) => p.label))).toEqual(["Agreement of the trials", "Pipette"]);
    expect(parts.reduce((sum, p) => sum + p.part, 0)).toBeCloseTo(1, 12);
  });

  test("trials that agree by luck are not taken for exact", () => {
    const combined = combineReplicates([trial(1, "a"), trial(1, "b")], "s", 0);
    expect(combined.repeatability).toBeCloseTo(0.001 / Math.SQRT2, 12);
    expect(combineReplicates([trial(1, "a")], "s", 0.005).repeatability).toBeCloseTo(0.005, 12);
  });

  test("the 95 % interval uses effective degrees of freedom", () => {
    const three = combineReplicates(
      [1.0, 1.01, 1.02].map((v) => exact(v, "mol/L")),
      "s",
      0,
    ).quantity;
    // s/√3 alone, 2 degrees of freedom: t = 4.303
    expect(plusMinus(three, "i95") / plusMinus(three, "u")).toBeCloseTo(4.303, 3);
    expect(plusMinus(three, "k2") / plusMinus(three, "u")).toBe(2);
  });
});
