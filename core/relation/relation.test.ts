import { describe, expect, test } from "@jest/globals";
import { sharesOfVariance } from "../judgement";
import { exact, inUnit, leaf, measured, type Quantity, standardUncertainty, unitOf } from "../quantity";
import { mustHold } from "../result";
import {
  checkRelations,
  evaluate,
  evaluateRelations,
  findRoot,
  namesTex,
  parseExpression,
  parseRelation,
  solveForTiter,
  typeset,
} from ".";

const ratio = () => [1, 2] as const;
const dims = (symbols: Record<string, string>) =>
  new Map(Object.entries(symbols).map(([name, unit]) => [name, unitOf(unit).dimension] as const));
const relations = (...sources: string[]) => sources.map((source) => mustHold(parseRelation(source)));
const problem = (result: { ok: boolean; problem?: { message: string; position?: number } }) => result.problem;

describe("reading", () => {
  test("formulas inside M and ratio may hold brackets, dots and charges", () => {
    const { expression } = mustHold(parseRelation("n = m / M((NH4)2Fe(SO4)2·6H2O) * ratio(MnO4-, Fe^2+)"));
    expect(expression).toMatchObject({
      operator: "*",
      left: { right: { type: "molar-mass", formula: "(NH4)2Fe(SO4)2·6H2O" } },
      right: { type: "ratio", of: "MnO4-", per: "Fe^2+" },
    });
  });

  test("problems carry the position in what was typed", () => {
    expect(problem(parseRelation("n = m / M(KHC8H4O4"))).toEqual({
      message: "This bracket is never closed",
      position: 9,
    });
    expect(problem(parseRelation("n = m / M(KXx)"))?.position).toBe(11);
    expect(problem(parseRelation("m / M"))?.message).toMatch(/begins with the symbol/);
    expect(problem(parseRelation("c = n V"))?.message).toMatch(/side by side/);
    expect(problem(parseRelation("c = sin(V)"))?.message).toMatch(/no function/);
  });
});

describe("dimensions", () => {
  test("m + V is refused, with the reason in words", () => {
    const result = checkRelations(relations("x = m + V"), dims({ m: "g", V: "mL" }));
    expect(problem(result)?.message).toBe(
      'In "x = m + V": m is a mass and V is a volume: they cannot be added',
    );
  });

  test("follow through a chain, and name what is not known", () => {
    const chain = relations("n = m / M(NaOH)", "c = n / V");
    const found = mustHold(checkRelations(chain, dims({ m: "g", V: "mL" })));
    expect(found.get("c")).toEqual(unitOf("mol/L").dimension);
    expect(problem(checkRelations(relations("c = n / W"), dims({ n: "mol" })))?.message).toMatch(
      /"W" is neither read/,
    );
    expect(problem(checkRelations(relations("y = ln(V)"), dims({ V: "mL" })))?.message).toMatch(
      /plain number/,
    );
  });
});

describe("value", () => {
  const x = measured(4, "1", [{ leaf: leaf({ id: "x", label: "x", group: "x", u: 0.01 }), by: 1 }]);
  const at = (source: string, symbols: Record<string, Quantity>) =>
    evaluate(mustHold(parseExpression(source)), { symbols: new Map(Object.entries(symbols)), ratio });

  test.each([
    ["x - x", 0, 0],
    ["2 * x ^ 2 - x / 4", 31, 16 - 0.25],
    ["sqrt(x)", 2, 0.25],
    ["ln(x)", Math.log(4), 0.25],
    ["log10(x)", Math.log10(4), 1 / (4 * Math.LN10)],
    ["exp(-x)", Math.exp(-4), Math.exp(-4)],
    ["x * ratio(A, B)", 2, 0.5],
  ])("%s", (source, value, derivative) => {
    const q = at(source.replace("ratio(A, B)", "ratio(NaOH, HCl)"), { x });
    expect(q.value).toBeCloseTo(value, 12);
    expect(standardUncertainty(q)).toBeCloseTo(Math.abs(derivative) * 0.01, 12);
  });
});

test("working: fractions, subscripts and chemistry in TeX", () => {
  const { expression } = mustHold(parseRelation("c = (m - m_0) * P / (M(KHC8H4O4) * V_a)"));
  expect(typeset(expression, namesTex)).toBe(
    "\\dfrac{\\left(m - m_{0}\\right) \\cdot P}{M(\\mathrm{KHC_{8}H_{4}O_{4}}) \\cdot V_{a}}",
  );
});

describe("solving", () => {
  test("finds the titer at which the result has its value", () => {
    const chain = relations("n = m / M(KHC8H4O4)", "c = n / V");
    const titer = mustHold(
      solveForTiter({
        relations: chain,
        ratio,
        known: new Map([["m", exact(0.5, "g")]]),
        titer: "V",
        target: "c",
        value: 0.1,
      }),
    );
    // 0.5 g / 204.222 g/mol / 0.1 mol/L = 24.483 mL
    expect(titer).toBeCloseTo(24.4832, 3);
    const back = evaluateRelations(
      chain,
      new Map([
        ["m", exact(0.5, "g")],
        ["V", exact(titer, "mL")],
      ]),
      ratio,
    );
    expect(inUnit(back.get("c") ?? exact(0), "mol/L")).toBeCloseTo(0.1, 10);
  });

  test("says so when something is not read yet or no solution lies in reach", () => {
    const chain = relations("n = m / M(KHC8H4O4)", "c = n / V");
    const base = { relations: chain, ratio, titer: "V", target: "c", value: 0.1 };
    expect(solveForTiter({ ...base, known: new Map() }).ok).toBe(false);
    expect(findRoot((v) => v * v + 1, -1, 1).ok).toBe(false);
    expect(mustHold(findRoot((v) => v ** 3 - 2, 0, 2))).toBeCloseTo(Math.cbrt(2), 12);
  });
});

/** EURACHEM/CITAC Guide CG 4 (QUAM), 3rd ed., example A2, with the guide's own standard uncertainties. */
test("QUAM A2 by its equation: c = 0.10214 mol/L, u = 0.00010 mol/L, the volume first, then repeatability", () => {
  const cause = (id: string, value: number, unit: string, u: number) =>
    measured(value, unit, [{ leaf: leaf({ id, label: id, group: id, u }), by: 1 }]);
  const symbols = new Map([
    ["R", cause("repeatability", 1, "1", 0.0005)],
    ["m", cause("mass", 0.3888, "g", 0.00013)],
    ["P", cause("purity", 1, "1", 0.00029)],
    ["M_K", cause("molar mass", 204.2212, "g/mol", 0.0038)],
    ["V", cause("volume", 18.64, "mL", 0.013)],
  ]);
  const c = evaluate(mustHold(parseExpression("R * m * P / (M_K * V)")), { symbols, ratio });
  expect(c.value.toFixed(5)).toBe("0.10214");
  expect(standardUncertainty(c).toFixed(5)).toBe("0.00010");
  expect((standardUncertainty(c) / c.value).toFixed(5)).toBe("0.00097");
  expect(sharesOfVariance(c).map(({ id }) => id)).toEqual([
    "volume",
    "repeatability",
    "mass",
    "purity",
    "molar mass",
  ]);
});
