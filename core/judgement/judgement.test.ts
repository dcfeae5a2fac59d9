import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { exact, leaf, measured, standardUncertainty } from "../quantity";
import {
  bestConcordantSet,
  combineReplicates,
  joiningWindow,
  plusMinus,
  sharesOfVariance,
  standardDeviation,
} from ".";

const within = (width: number) => ({ rule: "range", width }) as const;
const titers = (...values: number[]) => values.map((value, i) => ({ id: String(i + 1), value }));

describe("best concordant set", () => {
  test("is the largest, then the tightest, and tells ties", () => {
    const set = bestConcordantSet(titers(19.58, 19.64, 20.1, 19.66, 20.12), within(0.1));
    expect(set).toMatchObject({ members: ["1", "2", "4"], low: 19.58, high: 19.66, tied: false });
    expect(bestConcordantSet(titers(19.5, 19.58, 20.0, 20.05), within(0.1))).toMatchObject({
      members: ["3", "4"],
    });
    expect(bestConcordantSet(titers(19.5, 19.55, 20.0, 20.05), within(0.1))?.tied).toBe(true);
    expect(bestConcordantSet([], within(0.1))).toBeNull();
  });

  /** Common practice, no source: three within 0.1 mL of each other close a set; 19.7 and 19.3 do not agree. */
  test("takes a spread of exactly the width, whatever binary arithmetic makes of it", () => {
    expect(bestConcordantSet(titers(19.3, 19.35, 19.4), within(0.1))?.members).toHaveLength(3);
    expect(bestConcordantSet(titers(19.7, 19.3), within(0.1))?.members).toHaveLength(1);
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
    expect(parts.map((p) => p.label)).toEqual(["Agreement of the trials", "Pipette"]);
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
