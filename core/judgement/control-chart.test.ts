import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { mustHold } from "../result";
import { controlChart, type ControlRule } from "./control-chart";

const typed = { mean: 0, s: 1 };
const fired = (values: readonly number[]) =>
  mustHold(controlChart(values, typed)).points.map((point) => point.fired);
/** Where a rule fires, by the place of the point. */
const where = (rule: ControlRule, values: readonly number[]) =>
  fired(values).flatMap((all, at) => (all.includes(rule) ? [at] : []));

test("limits are those of a worked example", () => {
  // NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2: flow rates of ten batches.
  const flow = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];
  const chart = mustHold(controlChart(flow, { first: 10 }));
  expect(chart.mean).toBeCloseTo(50.81, 10);
  expect(chart.mean + 3 * chart.s).toBeCloseTo(55.8041, 3);
  expect(chart.mean - 3 * chart.s).toBeCloseTo(45.8159, 3);
  expect(chart).toMatchObject({ from: 10, provisional: true });
});

describe("rules fire at the point that completes them, and not before", () => {
  test.each<[ControlRule, number[], number[]]>([
    ["beyond-three", [0, 3, 3.01, -3.2], [2, 3]],
    ["two-of-three-beyond-two", [2.1, 0, 2.1, 0, 0, 2.1, -2.1, 2.1], [2, 7]],
    ["four-of-five-beyond-one", [1.1, 1.2, 0, 1.1, 1.3, 0.5, 1.4, -1.1], [4]],
    ["eight-on-one-side", [...Array<number>(8).fill(0.1), -0.1, ...Array<number>(7).fill(-0.1)], [7, 15]],
    ["six-rising-or-falling", [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.5], [5, 6]],
    ["six-rising-or-falling", [0.5, 0.4, 0.3, 0.2, 0.1, 0.1], []],
  ])("%s of %j", (rule, values, at) => {
    expect(where(rule, values)).toEqual(at);
  });

  test("a value on the mean is on neither side", () => {
    expect(where("eight-on-one-side", [...Array<number>(7).fill(0.1), 0])).toEqual([]);
  });

  test("mirrored values fire the same rules; a point knows nothing of those after it", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -4, max: 4, noNaN: true }), { minLength: 2, maxLength: 30 }),
        (values) => {
          const all = fired(values);
          expect(fired(values.map((x) => -x))).toEqual(all);
          expect(fired(values.slice(0, -1))).toEqual(all.slice(0, -1));
        },
      ),
    );
  });
});

test("limits come from the first values alone, are provisional below twenty, and refused where nothing scatters", () => {
  const values = Array.from({ length: 25 }, (_, i) => 10 + (i % 2) * 0.1);
  const chart = mustHold(controlChart([...values, 50], { first: 20 }));
  expect(chart).toMatchObject({ from: 20, provisional: false });
  expect(chart.s).toBeCloseTo(0.1 / 1.128, 10);
  expect(chart.points.at(-1)?.fired).toContain("beyond-three");
  expect(mustHold(controlChart(values.slice(0, 19), { first: 20 }))).toMatchObject({
    ...{ from: 19, provisional: true },
  });
  for (const [few, basis] of [
    [[], { first: 20 }],
    [[1], { first: 20 }],
    [[1, 1, 1], { first: 3 }],
    [[1, 2], { mean: 1, s: 0 }],
  ] as const)
    expect(controlChart(few, basis).ok).toBe(false);
});

test("of a normal process the rules together seldom fire", () => {
  // A process that does not change, of fixed seed: about 2 % of points, by the chances of each rule.
  let state = 7;
  const uniform = () => (state = (state * 16807) % 2147483647) / 2147483647;
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  const values = Array.from({ length: 20_000 }, normal);
  const share = fired(values).filter((all) => all.length > 0).length / values.length;
  expect(share).toBeGreaterThan(0.005);
  expect(share).toBeLessThan(0.035);
  expect(where("beyond-three", values).length / values.length).toBeCloseTo(0.0027, 2);
});
