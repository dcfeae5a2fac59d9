import { describe, expect, test } from "@jest/globals";
import { longTest } from "~/core/testing/long-test";
import { randomStream } from "../montecarlo";
import { mustHold } from "../result";
import { compareOrders, condensed, halfInterval, type Order, orderInExcess, rateLaw, windowOf } from ".";
import { plain } from "../testing/plain";

const every = (step: number, until: number) => Array.from({ length: until / step + 1 }, (_, i) => i * step);

const course = (order: Order, initial: number, k: number, sd: number, seed = 1) => {
  const random = randomStream(seed);
  const seconds = every(1, 200);
  return { seconds, absorbance: seconds.map((t) => rateLaw(order, initial, k, t) + sd * random.normal()) };
};

describe("the order of a reaction, from absorbance each second", () => {
  test.each([
    [0, 0.9, 0.004],
    [1, 0.9, 0.012],
    [2, 0.9, 0.02],
  ] as const)("is found where it is %i, with k within its ±, also under noise", (order, initial, k) => {
    const exact = mustHold(compareOrders(course(order, initial, k, 0)));
    expect([exact.best, exact.straightest]).toEqual([order, order]);
    expect(exact.fits[order].k).toBeCloseTo(k, 9);
    expect(Math.abs(exact.fits[order].line.r)).toBeCloseTo(1, 9);
    const noisy = mustHold(compareOrders(course(order, initial, k, 0.002)));
    expect(noisy.best).toBe(order);
    expect(noisy.fits[order].evidence).toBeGreaterThan(0.99);
    expect(Math.abs(noisy.fits[order].k - k)).toBeLessThan(4 * noisy.fits[order].u);
  });

  test("half-lives: A₀/2k, ln 2/k, 1/kA₀", () => {
    expect(mustHold(compareOrders(course(0, 0.8, 0.002, 0))).fits[0].halfLife).toBeCloseTo(200, 6);
    expect(mustHold(compareOrders(course(1, 0.8, 0.01, 0))).fits[1].halfLife).toBeCloseTo(69.3147, 3);
    expect(mustHold(compareOrders(course(2, 0.8, 0.05, 0))).fits[2].halfLife).toBeCloseTo(25, 6);
  });

  longTest("the 95 % interval of k holds the truth in 93 to 97 of 100 courses", () => {
    let held = 0;
    for (let seed = 1; seed <= 1000; seed++) {
      const fit = mustHold(compareOrders(course(1, 0.9, 0.015, 0.003, seed))).fits[1];
      if (Math.abs(fit.k - 0.015) <= halfInterval(fit)) held++;
    }
    expect(held).toBeGreaterThan(930);
    expect(held).toBeLessThan(975);
  });

  test("noise at the end misleads the straightest plot but not the judge beside it", () => {
    const found = mustHold(compareOrders(course(2, 0.9, 0.25, 0.012, 4)));
    expect([found.straightest, found.best]).toEqual([1, 2]);
    expect(plain(found.text)).toMatch(
      /The first-order plot is the straightest, but its transformation gives the smallest/,
    );
  });

  test("a law that changes midway leaves residuals that hang together, and says so", () => {
    const seconds = every(1, 200);
    const absorbance = seconds.map((t) => (t < 100 ? 0.9 - 0.002 * t : 0.7 - 0.0005 * (t - 100)));
    const found = mustHold(compareOrders({ seconds, absorbance }));
    expect(plain(found.text)).toMatch(/correlated in time/);
    const early = mustHold(compareOrders(windowOf({ seconds, absorbance }, 0, 99)));
    expect([early.best, early.fits[0].k]).toEqual([0, expect.closeTo(0.002, 9)]);
  });

  test("too few readings, or none that change, are told in words", () => {
    const few = compareOrders({ seconds: [0, 1, 2], absorbance: [1, 0.9, 0.8] });
    expect(plain(few.ok ? "" : few.problem.message)).toMatch(/3 readings lie in the window/);
    const flat = compareOrders({ seconds: every(1, 20), absorbance: every(1, 20).map(() => 0.5) });
    expect(plain(flat.ok ? "" : flat.problem.message)).toMatch(/does not change/);
  });
});

test("The order in the excess reagent: k' = k [B]ⁿ over several runs", () => {
  const run = (concentration: number, k: number) => ({ concentration, k, u: 0.02 * k });
  const first = mustHold(orderInExcess([run(0.05, 0.00203), run(0.1, 0.00398), run(0.2, 0.00806)]));
  expect(plain([first.nearest, first.text])).toEqual([1, expect.stringMatching(/so 1\./)]);
  expect(first.n).toBeCloseTo(Math.log(0.00806 / 0.00203) / Math.log(4), 1);
  const two = mustHold(orderInExcess([run(0.1, 0.001), run(0.2, 0.004)]));
  expect([two.n, two.half]).toEqual([expect.closeTo(2, 9), null]);
  const repeats = orderInExcess([run(0.1, 0.001), run(0.1, 0.0011)]);
  expect(plain(repeats.ok ? "" : repeats.problem.message)).toMatch(/different concentrations/);
});

describe("laws of a rate", () => {
  const truth = { 0: [0.9, 0.003], 1: [0.9, 0.02], 2: [0.9, 0.04] } as const;

  test.each([0, 1, 2] as const)(
    "a clock that was started late changes no rate constant of order %i",
    (order) => {
      const [initial, k] = truth[order];
      const one = course(order, initial, k, 0.002, 8);
      const late = { ...one, seconds: one.seconds.map((t) => t + 30) };
      const [a, b] = [mustHold(compareOrders(one)), mustHold(compareOrders(late))];
      expect(b.best).toBe(a.best);
      expect(b.fits[order].k / a.fits[order].k).toBeCloseTo(1, 6);
      expect(b.fits[order].line.slope).toBeCloseTo(a.fits[order].line.slope, 9);
    },
  );

  test("minutes for seconds make every constant sixty times as large, and no order another", () => {
    const one = course(1, 0.9, 0.02, 0.002, 8);
    const minutes = { ...one, seconds: one.seconds.map((t) => t / 60) };
    const [a, b] = [mustHold(compareOrders(one)), mustHold(compareOrders(minutes))];
    for (const order of [0, 1, 2] as const) {
      expect(b.fits[order].k / a.fits[order].k / 60).toBeCloseTo(1, 6);
      expect(b.fits[order].evidence).toBeCloseTo(a.fits[order].evidence, 6);
    }
  });

  test("evidence is shared out: the three parts add up to one", () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const { fits } = mustHold(compareOrders(course(1, 0.3, 0.004, 0.004, seed)));
      expect(fits.reduce((sum, f) => sum + f.evidence, 0)).toBeCloseTo(1, 12);
      for (const { evidence } of fits) expect(evidence).toBeGreaterThanOrEqual(0);
    }
  });

  test("a course that is too short to tell says which order is not out of the question", () => {
    const short = windowOf(course(1, 0.9, 0.004, 0.003, 6), 0, 25);
    expect(plain(mustHold(compareOrders(short)).text)).toMatch(
      /cannot be ruled out.*follow the reaction for longer/,
    );
  });

  test("readings at or below zero are left out of the plots that have none of them, and counted", () => {
    const { seconds, absorbance } = course(1, 0.9, 0.06, 0.003, 2);
    const below = absorbance.filter((a) => a <= 0).length;
    expect(below).toBeGreaterThan(5);
    const { fits } = mustHold(compareOrders({ seconds, absorbance }));
    expect(fits.map((f) => f.line.leftOut)).toEqual([0, below, below]);
    expect(fits[1].k).toBeCloseTo(0.06, 3);
  });
});

describe("a course that levels off above zero", () => {
  const levelling = (order: 1 | 2, k: number, end: number, sd = 0.002) => {
    const random = randomStream(9);
    const seconds = every(1, 200);
    return {
      seconds,
      absorbance: seconds.map((t) => rateLaw(order, 0.85, k, t, end) + sd * random.normal()),
    };
  };

  test.each([
    [1, 0.02],
    [2, 0.03],
  ] as const)(
    "order %i: k is off without the end, which is told; with the end fitted it is found",
    (order, k) => {
      const without = mustHold(compareOrders(levelling(order, k, 0.05)));
      expect(Math.abs(without.fits[order].k / k - 1)).toBeGreaterThan(0.05);
      if (order === 1) {
        expect(without.levelsOff).toBeCloseTo(0.05, 2);
        expect(plain(without.text)).toMatch(/levels off near 0\.05\d?, not at zero: fit the end absorbance/);
      }
      const fit = mustHold(compareOrders(levelling(order, k, 0.05), true)).fits[order];
      expect(Math.abs(fit.k - k)).toBeLessThan(4 * fit.u);
      expect(Math.abs(fit.end - 0.05)).toBeLessThan(4 * fit.endU);
      expect(Math.abs(fit.k / k - 1)).toBeLessThan(0.03);
    },
  );

  test("one that ends at zero is left alone, and the interval with the end fitted holds the truth", () => {
    expect(mustHold(compareOrders(levelling(1, 0.02, 0))).levelsOff).toBeNull();
    let held = 0;
    for (let seed = 1; seed <= 300; seed++) {
      const random = randomStream(seed);
      const seconds = every(2, 200);
      const absorbance = seconds.map((t) => rateLaw(1, 0.85, 0.02, t, 0.05) + 0.003 * random.normal());
      const fit = mustHold(compareOrders({ seconds, absorbance }, true)).fits[1];
      if (Math.abs(fit.k - 0.02) <= halfInterval(fit)) held++;
    }
    expect(held / 300).toBeGreaterThan(0.91);
    expect(held / 300).toBeLessThan(0.985);
  });
});

describe("a course of more readings than are fitted one by one", () => {
  const n = 2400;
  const at = (i: number) => i / 4;
  /** Noise that hangs together from reading to reading, as that of an instrument that smooths does. */
  const long = (seed: number, order: Order, hangs = 0) => {
    const random = randomStream(seed);
    let noise = 0;
    const absorbance = Array.from({ length: n }, (_, i) => {
      noise = hangs * noise + random.normal();
      return rateLaw(order, 0.9, 0.004, at(i)) + 0.003 * noise;
    });
    return { seconds: Array.from({ length: n }, (_, i) => at(i)), absorbance };
  };

  test.each([0, 1, 2] as const)("order %i: its means say what its readings say", (order) => {
    for (let seed = 1; seed <= 5; seed++) {
      const course = long(seed, order);
      const [all, means] = [Infinity, 200].map((most) => mustHold(compareOrders(course, false, most)));
      expect([means!.each, means!.fitted.seconds.length]).toEqual([12, 200]);
      expect(means!.best).toBe(all!.best);
      const [a, b] = [all!.fits[order], means!.fits[order]];
      expect(Math.abs(a.k - b.k)).toBeLessThan(0.05 * a.u);
      expect(b.u / a.u).toBeGreaterThan(0.8);
      expect(b.u / a.u).toBeLessThan(1.25);
    }
  });

  longTest("95 % intervals hold the truth as often as they say, where noise hangs together too", () => {
    let held = 0;
    for (let seed = 1; seed <= 400; seed++) {
      const fit = mustHold(compareOrders(long(1000 + seed, 1, 0.6), false, 200)).fits[1];
      if (Math.abs(fit.k - 0.004) <= halfInterval(fit)) held++;
    }
    // Within three standard deviations of what 400 courses can tell.
    expect(held / 400).toBeGreaterThan(0.917);
  });

  test("a pause in the readings is not averaged across", () => {
    const seconds = [
      ...Array.from({ length: 1000 }, (_, i) => i),
      ...Array.from({ length: 1003 }, (_, i) => 90_000 + i),
    ];
    const { course, each } = condensed(
      { seconds, absorbance: seconds.map((t) => (t < 50_000 ? 0.8 : 0.2)) },
      150,
    );
    expect(each).toBe(14);
    expect(new Set(course.absorbance.map((a) => a.toFixed(3)))).toEqual(new Set(["0.800", "0.200"]));
    expect(course.seconds.filter((t) => t > 1000 && t < 90_000)).toEqual([]);
  });

  test("readings that lie further apart are averaged over no longer than others", () => {
    // One in 1.4 s at first, later ten a second: the law bends within ten of the first.
    const seconds = Array.from({ length: 3000 }, (_, i) => (i < 100 ? 1.4 * i : 140 + 0.1 * (i - 100)));
    const read = { seconds, absorbance: seconds.map((t) => rateLaw(1, 0.9, 0.02, t)) };
    const [all, means] = [Infinity, 300].map((most) => mustHold(compareOrders(read, false, most)).fits[1]);
    expect(Math.abs(means!.k / all!.k - 1)).toBeLessThan(2e-4);
  });
});
