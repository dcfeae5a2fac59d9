import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import FormulaParser from "fast-formula-parser";
import { dimensionless, exact, leaf, measured, standardUncertainty } from "../quantity";
import { mustHold } from "../result";
import {
  type BinaryOperator,
  checkRelations,
  dimensionOf,
  evaluate,
  evaluateNumber,
  type Expression,
  expressionText,
  parseExpression,
  parseRelation,
  spreadsheetFormula,
} from ".";
import { inEnglish } from "../text";
import { plain } from "../testing/plain";

const names = ["x", "y", "z"] as const;
const stoichiometry = { ratio: () => [1, 1] as const, equivalents: () => 1 };

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
      arguments: [name === "exp" ? bounded(e) : positive(e)],
    })),
    fc
      .tuple(tie("tree"), tie("tree"))
      .map((args): Expression => ({ type: "call", name: "mean", arguments: args })),
    fc.tuple(tie("tree"), tie("tree")).map(([e, power]) => binary("^", positive(bounded(e)), bounded(power))),
    tie("tree").map((argument): Expression => ({ type: "negate", argument })),
  ),
  tree: fc.oneof({ maxDepth: 4 }, tie("leaf"), tie("node")),
}));
const point = fc.record({
  x: fc.double({ min: 0.5, max: 3 }),
  y: fc.double({ min: 0.5, max: 3 }),
  z: fc.double({ min: 0.5, max: 3 }),
});

const plainValue = (expression: Expression, at: Record<string, number>) =>
  evaluateNumber(expression, { numbers: new Map(Object.entries(at)), stoichiometry });
const tame = (value: number) => Number.isFinite(value) && Math.abs(value) < 1e6;

describe("readers of one tree agree", () => {
  test("the value with sensitivities and the plain value are the same number", () => {
    fc.assert(
      fc.property(tree, point, (expression, at) => {
        const symbols = new Map(Object.entries(at).map(([name, value]) => [name, exact(value)] as const));
        const plain = plainValue(expression, at);
        fc.pre(tame(plain));
        const { value } = evaluate(expression, { symbols, stoichiometry });
        expect(value).toBeCloseTo(plain, 9);
      }),
    );
  });

  test("sensitivities are the derivatives that small steps show", () => {
    let compared = 0;
    fc.assert(
      fc.property(tree, point, fc.constantFrom(...names), (expression, at, name) => {
        const step = 1e-5;
        const f = (value: number) => plainValue(expression, { ...at, [name]: value });
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
        const u = standardUncertainty(evaluate(expression, { symbols, stoichiometry }));
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
        const value = plainValue(expression, at);
        fc.pre(tame(value));
        const text = expressionText(expression);
        // A longer one is refused, as it should be.
        fc.pre(text.length <= 2000);
        const again = mustHold(parseExpression(text));
        expect(plainValue(again, at)).toBeCloseTo(value, 9);
      }),
    );
  });

  test("a spreadsheet computes the same from its cells (fast-formula-parser from the registry)", () => {
    const columns = { x: "A1", y: "B1", z: "C1" } as const;
    fc.assert(
      fc.property(tree, point, (expression, at) => {
        const value = plainValue(expression, at);
        fc.pre(tame(value));
        const cellOf = (symbol: string) => ({
          address: columns[symbol as keyof typeof columns],
          unit: symbol === "x" ? "%" : "1",
        });
        const cells = [at.x / 0.01, at.y, at.z];
        const sheet = new FormulaParser({ onCell: ({ col }) => cells[col - 1] });
        const formula = spreadsheetFormula(expression, "‰", cellOf, stoichiometry);
        const shown = sheet.parse(formula.slice(1), { sheet: "s", row: 9, col: 9 }) as number;
        expect(shown / 1000).toBeCloseTo(value, 8);
      }),
    );
  });

  test("of plain numbers only plain numbers come", () => {
    const dimensions = new Map(names.map((name) => [name, dimensionless] as const));
    fc.assert(fc.property(tree, (expression) => dimensionOf(expression, dimensions).ok));
  });
});

test("whatever is typed: a relation or a message whose position lies in what was typed, never a crash", () => {
  const pieces =
    "c V_a n κ = + - * / ^ ( ) [ ] , . 1 0.5 2e3 [mL] M( ratio( equivalents( mean( KMnO4 Fe^2+ ln 'x' ? { $ ".split(
      " ",
    );
  let [read, refused] = [0, 0];
  fc.assert(
    fc.property(fc.array(fc.oneof(fc.constantFrom(...pieces), fc.string()), { maxLength: 9 }), (typed) => {
      const source = `y = ${typed.join(" ")}`;
      const result = parseRelation(source);
      if (result.ok) {
        read++;
        const dimensions = checkRelations([result.value], new Map([["V_a", dimensionless]]));
        expect(dimensions.ok || inEnglish(dimensions.problem.message).length > 5).toBe(true);
        return;
      }
      refused++;
      expect(plain(result.problem.message)).not.toBe("");
      const { position = 0 } = result.problem;
      expect(position).toBeGreaterThanOrEqual(0);
      expect(position).toBeLessThanOrEqual(source.length);
    }),
    { numRuns: 3000 },
  );
  expect(Math.min(read, refused)).toBeGreaterThan(20);
});
