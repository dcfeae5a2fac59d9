import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { plusMinus, sharesOfVariance } from "../judgement";
import { exact, leaf, type LeafShape, measured, type Quantity, standardUncertainty } from "../quantity";
import { evaluate, parseExpression } from "../relation";
import { mustHold } from "../result";
import {
  compareWithDraws,
  drawLeaf,
  orderStatistics,
  type Program,
  ProgramBuilder,
  propagate,
  propagateAll,
  randomStream,
} from ".";

const stoichiometry = { ratio: () => [1, 2] as const, equivalents: () => 5 };

const cause = (
  id: string,
  value: number,
  unit: string,
  u: number,
  shape: LeafShape = "normal",
  degreesOfFreedom = Infinity,
) => measured(value, unit, [{ leaf: leaf({ id, label: id, group: id, u, shape, degreesOfFreedom }), by: 1 }]);

/** The program and the propagated quantity of one expression over the same causes. */
function both(
  source: string,
  causes: Readonly<Record<string, Quantity>>,
): { program: Program; linear: Quantity } {
  const expression = mustHold(parseExpression(source));
  const builder = new ProgramBuilder();
  const symbols = new Map(Object.entries(causes));
  const registers = new Map([...symbols].map(([name, q]) => [name, builder.quantity(q)] as const));
  return {
    program: builder.build(builder.expression(expression, registers, stoichiometry)),
    linear: evaluate(expression, { symbols, stoichiometry }),
  };
}

const linearOf = (q: Quantity) => ({
  value: q.value,
  standardUncertainty: standardUncertainty(q),
  half95: plusMinus(q, "i95"),
});

describe("random numbers", () => {
  const n = 400_000;
  const normal = new Float64Array(n);
  randomStream(1).fillNormal(normal);

  test("are the same for the same seed, one by one or a block at a time, and others for another", () => {
    const [block, single, other] = [randomStream(7), randomStream(7), randomStream(8)];
    const drawn = new Float64Array(1000);
    block.fillNormal(drawn);
    const one = Array.from({ length: 1000 }, () => single.normal());
    expect([...drawn]).toEqual(one);
    expect(other.normal()).not.toBe(one[0]);
    expect(block.next()).toBe(single.next());
  });

  test("normal ones have the moments of the normal distribution", () => {
    const moment = (power: number) => normal.reduce((sum, x) => sum + x ** power, 0) / n;
    const slack = 4 / Math.sqrt(n);
    expect(Math.abs(moment(1))).toBeLessThan(slack);
    expect(Math.abs(moment(2) - 1)).toBeLessThan(slack * Math.sqrt(2));
    expect(Math.abs(moment(3))).toBeLessThan(slack * Math.sqrt(15));
    expect(Math.abs(moment(4) - 3)).toBeLessThan(slack * Math.sqrt(96));
  });

  test.each([
    [0.5, 0.617075],
    [1, 0.317311],
    [1.96, 0.0499958],
    [3, 0.0026998],
    [3.9, 0.0000962],
  ])("beyond ±%d lies the part %d of them (normal tables)", (edge, part) => {
    const beyond = normal.reduce((count, x) => count + (Math.abs(x) > edge ? 1 : 0), 0) / n;
    expect(Math.abs(beyond - part)).toBeLessThan(4.5 * Math.sqrt((part * (1 - part)) / n));
  });

  test("follow each other independently", () => {
    for (const lag of [1, 2, 3, 5]) {
      let sum = 0;
      for (let i = lag; i < n; i++) sum += normal[i]! * normal[i - lag]!;
      expect(Math.abs(sum / n)).toBeLessThan(4.5 / Math.sqrt(n));
    }
  });

  test.each<[LeafShape, number, number]>([
    ["normal", Infinity, 1],
    ["rectangular", Infinity, 1],
    ["triangular", Infinity, 1],
    // A t distribution is wider than its u by √(ν / (ν - 2)) (JCGM 101, 6.4.9).
    ["t", 10, Math.sqrt(10 / 8)],
  ])("%s causes spread as their u says", (shape, degreesOfFreedom, wider) => {
    const random = randomStream(3);
    const l = leaf({ id: "x", label: "x", group: "x", u: 0.02, shape, degreesOfFreedom });
    const draws = Array.from({ length: 20_000 }, () => drawLeaf(l, random));
    const sd = Math.sqrt(draws.reduce((sum, x) => sum + x * x, 0) / draws.length);
    expect(sd / (0.02 * wider)).toBeCloseTo(1, 1.5);
    const limit = { rectangular: Math.sqrt(3), triangular: Math.sqrt(6), normal: Infinity, t: Infinity }[
      shape
    ];
    expect(Math.max(...draws.map(Math.abs))).toBeLessThanOrEqual(0.02 * limit);
  });
});

test("order statistics are what sorting would give", () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 1, maxLength: 300 }),
      fc.nat(),
      (values, index) => {
        const all = Float64Array.from(values);
        const k = index % values.length;
        const sorted = [...values].sort((a, b) => a - b);
        const found = orderStatistics(all, [k, 0], sorted[0]!, sorted.at(-1)!);
        expect(found).toEqual([sorted[k], sorted[0]]);
        expect([...all]).toEqual(values);
      },
    ),
  );
});

/** EURACHEM/CITAC Guide CG 4 (QUAM), 3rd ed., example A2, and JCGM 101 over the same relation. */
describe("QUAM A2 by a million draws", () => {
  const { program, linear } = both("R * m * P / (M_K * V)", {
    R: cause("repeatability", 1, "1", 0.0005),
    m: cause("mass", 0.3888, "g", 0.00013),
    P: cause("purity", 1, "1", 0.00029, "rectangular"),
    M_K: cause("molar mass", 204.2212, "g/mol", 0.0038, "rectangular"),
    V: cause("volume", 18.64, "mL", 0.013),
  });
  const drawn = propagateAll(program, { draws: 1_000_000, seed: 1 });

  test("gives the guide's c = 0.10214 mol/L with u = 0.00010 mol/L", () => {
    expect(drawn.mean.toFixed(5)).toBe("0.10214");
    expect(drawn.standardUncertainty.toFixed(5)).toBe("0.00010");
    expect(drawn.standardUncertainty / standardUncertainty(linear)).toBeCloseTo(1, 2);
    expect(sharesOfVariance(linear).map(({ id }) => id)).toEqual([
      "volume",
      "repeatability",
      "mass",
      "purity",
      "molar mass",
    ]);
  });

  test("validates the propagated interval (JCGM 101, 8.1)", () => {
    const { agree, tolerance } = compareWithDraws(linearOf(linear), drawn);
    expect(agree).toBe(true);
    // u is shown as 0.00010: half a unit of its last digit.
    expect(tolerance).toBeCloseTo(0.000005, 12);
    const { counts } = drawn.histogram;
    const held = counts.reduce((sum, c) => sum + c, 0);
    // The picture spans the interval and a third on either side.
    expect(held).toBeGreaterThan(990_000);
    expect(held).toBeLessThanOrEqual(1_000_000);
    const within = (drawn.interval[1] - drawn.interval[0]) / (2 * drawn.standardUncertainty);
    expect(within).toBeCloseTo(1.96, 1);
  });

  test("is the same again with the same seed", () => {
    const few = { draws: 20_000, seed: 5 };
    expect(propagateAll(program, few)).toEqual(propagateAll(program, few));
    expect(propagateAll(program, few).mean).not.toBe(propagateAll(program, { ...few, seed: 6 }).mean);
  });
});

describe("where the propagation is not to be trusted, the draws say so", () => {
  test("one rectangular cause alone: its 95 % are narrower than 1.96 u", () => {
    const { program, linear } = both("2 * x", { x: cause("x", 1, "1", 0.01, "rectangular") });
    const drawn = propagateAll(program, { draws: 200_000, seed: 2 });
    expect(compareWithDraws(linearOf(linear), drawn).agree).toBe(false);
    // The middle 95 % of a rectangle are 0.95 of its half width, √3 u.
    expect(drawn.interval[1] - 2).toBeCloseTo(0.95 * Math.sqrt(3) * 0.02, 3);
  });

  test("a bent relation: the square of something near zero", () => {
    const { program, linear } = both("x ^ 2", { x: cause("x", 0.001, "1", 0.01) });
    const drawn = propagateAll(program, { draws: 100_000, seed: 3 });
    expect(compareWithDraws(linearOf(linear), drawn).agree).toBe(false);
    expect(drawn.mean).toBeGreaterThan(50 * linear.value);
    expect(drawn.interval[0]).toBeGreaterThanOrEqual(0);
  });

  test("few readings: the t distribution's interval is that of Student's factor", () => {
    const { program, linear } = both("x", { x: cause("x", 10, "1", 0.1, "t", 4) });
    const drawn = propagateAll(program, { draws: 80_000, seed: 4 });
    // t for 4 degrees of freedom, 95 %: 2.776
    expect((drawn.interval[1] - 10) / 0.1).toBeCloseTo(2.776, 1);
    expect((plusMinus(linear, "i95") / 0.1).toFixed(3)).toBe("2.776");
  });
});

test("what two quantities share is drawn once: it cancels in their difference", () => {
  const shared = leaf({ id: "pipette", label: "pipette", group: "pipette", u: 0.03 });
  const a = measured(25, "mL", [{ leaf: shared, by: 1 }]);
  const { program } = both("a - b", { a, b: measured(20, "mL", [{ leaf: shared, by: 1 }]) });
  const drawn = propagateAll(program, { draws: 5000, seed: 1 });
  expect(drawn.mean).toBeCloseTo(0.005, 12);
  expect(drawn.standardUncertainty).toBeLessThan(1e-12);
});

test("draws that give no number are left out and counted", () => {
  const { program } = both("ln(x)", { x: cause("x", 0, "1", 1) });
  const drawn = propagateAll(program, { draws: 20_000, seed: 9 });
  expect(drawn.lost / 20_000).toBeCloseTo(0.5, 1.5);
  expect(drawn.draws + drawn.lost).toBe(20_000);
  expect(Number.isFinite(drawn.mean)).toBe(true);
});

test("whoever runs it is told how far it is, and can stop it", () => {
  const { program } = both("x", { x: cause("x", 1, "1", 0.1) });
  const running = propagate(program, { draws: 1_000_000, seed: 1 });
  const parts = [running.next(), running.next(), running.next()].map(({ value }) => value as number);
  expect(parts).toEqual([...parts].sort((a, b) => a - b));
  expect(parts.at(-1)).toBeLessThan(0.2);
  expect(running.return(undefined as never)).toMatchObject({ done: true });
  expect(running.next().done).toBe(true);
});

test("every operator and function draws what it computes", () => {
  const sources = [
    "mean(x, y)",
    "min(x, y)",
    "max(x, y)",
    "abs(-x)",
    "sqrt(x)",
    "10 ^ log10(x)",
    "exp(ln(y))",
  ];
  for (const source of sources) {
    const { program, linear } = both(source, { x: exact(2), y: exact(3) });
    expect(propagateAll(program, { draws: 10, seed: 1 }).mean).toBeCloseTo(linear.value, 12);
  }
});
