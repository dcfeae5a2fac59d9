import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { dimensionless, exact, leaf, measured, standardUncertainty } from "../quantity";
import { mustHold } from "../result";
import {
  type BinaryOperator,
  dimensionOf,
  evaluate,
  evaluateNumber,
  type Expression,
  expressionText,
  parseExpression,
} from ".";

const names = ["x", "y", "z"] as const;
const ratio = () => [1, 1] as const;

const binary = (operator: BinaryOperator, left: Expression, right: Expression): Expression => ({
  type: "binary",
  operator,
  left,
  right,
});
const one: Expression = { type: "number", value: 1, text: "1" };
/** 1 + e²: never zero, never negative, whatever e is. */
const positive = (e: Expression) => binary("+", one, binary("*", e, e));
/** e / (1 + e²): never beyond ± 1/2. */
const bounded = (e: Expression) => binary("/", e, positive(e));

/** Expressions over x, y, z of any shape, smooth everywhere: what is divided by, rooted or logged is positive. */
const { tree } = fc.letrec<{ tree: Expression; leaf: Expression; node: Expression }>((tie) => ({
  leaf: fc.oneof(
    fc.constantFrom(...names).map((name): Expression => ({ type: "symbol", name })),
    fc.integer({ min: 1, max: 9 }).map((n): Expression => ({ type: "number", value: n, text: String(n) })),
  ),
  node: fc.oneof(
    fc
      .tuple(fc.constantFrom("+", "-", "*", "/"), tie("tree"), tie("tree"))
      .map(([operator, left, right]) => binary(operator, left, operator === "/" ? positive(right) : right)),
    fc.tuple(fc.constantFrom("ln", "exp", "sqrt"), tie("tree")).map(([name, e]): Expression => ({
      type: "call",
      name,
      argument: name === "exp" ? bounded(e) : positive(e),
    })),
    tie("tree").map((argument): Expression => ({ type: "negate", argument })),
  ),
  tree: fc.oneof({ maxDepth: 4 }, tie("leaf"), tie("node")),
}));
const point = fc.record({
  x: fc.double({ min: 0.5, max: 3 }),
  y: fc.double({ min: 0.5, max: 3 }),
  z: fc.double({ min: 0.5, max: 3 }),
});

const numbersAt = (at: Record<string, number>) => new Map(Object.entries(at));
const tame = (value: number) => Number.isFinite(value) && Math.abs(value) < 1e6;

describe("readers of one tree agree", () => {
  test("the value with sensitivities and the plain value are the same number", () => {
    fc.assert(
      fc.property(tree, point, (expression, at) => {
        const symbols = new Map(Object.entries(at).map(([name, value]) => [name, exact(value)] as const));
        const plain = evaluateNumber(expression, numbersAt(at), ratio);
        fc.pre(tame(plain));
        const { value } = evaluate(expression, { symbols, ratio });
        expect(value).toBeCloseTo(plain, 9);
      }),
    );
  });

  test("sensitivities are the derivatives that small steps show", () => {
    let compared = 0;
    fc.assert(
      fc.property(tree, point, fc.constantFrom(...names), (expression, at, name) => {
        const step = 1e-5;
        const f = (value: number) => evaluateNumber(expression, numbersAt({ ...at, [name]: value }), ratio);
        const [low, middle, high] = [f(at[name] - step), f(at[name]), f(at[name] + step)];
        fc.pre([low, middle, high].every(tame));
        const slope = (high - low) / (2 * step);
        // Where the two halves differ, the function bends too sharply for this step to tell.
        fc.pre(Math.abs((high - middle) / step - (middle - low) / step) < 1e-3 * (1 + Math.abs(slope)));
        const symbols = new Map(
          names.map((n) => [
            n,
            n === name
              ? measured(at[n], "1", [{ leaf: leaf({ id: n, label: n, group: n, u: 1 }), by: 1 }])
              : exact(at[n]),
          ]),
        );
        const u = standardUncertainty(evaluate(expression, { symbols, ratio }));
        expect(Math.abs(u - Math.abs(slope))).toBeLessThan(1e-4 * (1 + Math.abs(slope)));
        compared++;
      }),
      { numRuns: 400 },
    );
    expect(compared).toBeGreaterThan(100);
  });

  test("written out and read again it means the same", () => {
    fc.assert(
      fc.property(tree, point, (expression, at) => {
        const value = evaluateNumber(expression, numbersAt(at), ratio);
        fc.pre(tame(value));
        const again = mustHold(parseExpression(expressionText(expression)));
        expect(evaluateNumber(again, numbersAt(at), ratio)).toBeCloseTo(value, 9);
      }),
    );
  });

  test("of plain numbers only plain numbers come", () => {
    const dimensions = new Map(names.map((name) => [name, dimensionless] as const));
    fc.assert(fc.property(tree, (expression) => dimensionOf(expression, dimensions).ok));
  });
});

/**
 * JCGM 101 against the GUM: QUAM's example A2 by 40,000 draws. The relation is nearly linear, so the standard deviation of
 * the draws and the propagated u must be the same within what so many draws can tell (1/√80,000 = 0.35 %).
 */
test("Monte Carlo draws spread as the propagated uncertainty says", () => {
  const expression = mustHold(parseExpression("R * m * P / (M_K * V)"));
  const causes = [
    ["R", 1, 0.0005],
    ["m", 0.3888, 0.00013],
    ["P", 1, 0.00029],
    ["M_K", 204.2212, 0.0038],
    ["V", 0.01864, 0.000013],
  ] as const;
  const symbols = new Map(
    causes.map(([id, value, u]) => [
      id as string,
      measured(value, "1", [{ leaf: leaf({ id, label: id, group: id, u }), by: 1 }]),
    ]),
  );
  const propagated = standardUncertainty(evaluate(expression, { symbols, ratio }));
  let state = 20261125;
  const uniform = () => {
    // Numerical Recipes' quick generator: good enough here, and the same draws every time.
    state = (Math.imul(1664525, state) + 1013904223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  const draws = Array.from({ length: 40_000 }, () =>
    evaluateNumber(
      expression,
      new Map(causes.map(([id, value, u]) => [id as string, value + u * normal()])),
      ratio,
    ),
  );
  const mean = draws.reduce((a, b) => a + b, 0) / draws.length;
  const spread = Math.sqrt(draws.reduce((a, b) => a + (b - mean) ** 2, 0) / (draws.length - 1));
  expect(Math.abs(spread / propagated - 1)).toBeLessThan(0.015);
});
