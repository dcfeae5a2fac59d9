import { describe, expect, test } from "@jest/globals";
import { sharesOfVariance } from "../judgement";
import {
  exact,
  inUnit,
  leaf,
  measured,
  type Quantity,
  scaled,
  showSignificant,
  significantFromText,
  standardUncertainty,
  unitOf,
} from "../quantity";
import { mustHold, type Problem } from "../result";
import {
  checkRelations,
  evaluate,
  evaluateRelations,
  findRoot,
  namesTex,
  parseExpression,
  parseRelation,
  significanceOf,
  solveForTiter,
  symbolsIn,
  symbolTex,
  typeset,
} from ".";
import { plain } from "../testing/plain";

const stoichiometry = { ratio: () => [1, 2] as const, equivalents: () => 5 };
const dims = (symbols: Record<string, string>) =>
  new Map(Object.entries(symbols).map(([name, unit]) => [name, unitOf(unit).dimension] as const));
const relations = (...sources: string[]) => sources.map((source) => mustHold(parseRelation(source)));
const problem = (result: { ok: boolean; problem?: Problem }) => result.problem;

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
    expect(plain(problem(parseRelation("n = m / M(KHC8H4O4")))).toEqual({
      message: "This bracket is never closed",
      position: 9,
    });
    expect(problem(parseRelation("n = m / M(KXx)"))?.position).toBe(11);
    expect(plain(problem(parseRelation("m / M"))?.message)).toMatch(/begins with the symbol/);
    expect(plain(problem(parseRelation("c = n V"))?.message)).toMatch(/side by side/);
    expect(plain(problem(parseRelation("c = sin(V)"))?.message)).toMatch(/no function/);
  });

  test.each([
    ["c = n V", 6, /side by side/, /a \* b/],
    ["p = log(x)", undefined, /no function/, /log10\(x\).*ln\(x\)/],
    ["c = 0.1 [mool/L] * V", 9, /"mool\/L" is not a known unit/, /\[mol\/L\]/],
    ["c = V [mL]", 6, /stands behind a number/, undefined],
    ["c = n / M(KHC8H4O4) / M(KXx)", 25, /not an element/, undefined],
    ["c =", 3, /missing/, undefined],
    ["c = (n / V", 10, /A bracket is never closed/, undefined],
    ["c = n *", 7, /Something is missing here/, undefined],
    ["c = n ? V", undefined, /./, undefined],
    ["c = , n", 4, /"," is not allowed here/, undefined],
    ["c = 'n'", 4, /no quotes/, undefined],
    ["c = ratio(NaOH)", 4, /two species/, undefined],
    ["x = mean()", undefined, /at least one argument/, undefined],
    ["x = n / Fe3+", undefined, /./, undefined],
  ])("%j: where it is wrong and how to mend it", (source, position, message, hint) => {
    const found = problem(parseRelation(source));
    expect(plain(found?.message)).toMatch(message);
    if (position !== undefined) expect(found?.position).toBe(position);
    if (hint) expect(plain(found?.hint)).toMatch(hint);
  });

  test("numbers carry units, symbols subscripts and Greek letters", () => {
    const { expression, symbol } = mustHold(parseRelation("κ_20 = 10 ^ (0.00093 * (p / 1 [mL] - 50)) * ε"));
    expect(symbol).toBe("κ_20");
    expect(symbolsIn(expression)).toEqual(["p", "ε"]);
    expect(typeset(expression, namesTex)).toBe(
      "10^{0.00093 \\cdot \\left(\\dfrac{p}{1~\\text{mL}} - 50\\right)} \\cdot \\varepsilon",
    );
    expect(symbolTex("ΔV_äq")).toBe("\\Delta V_{\\mathrm{äq}}");
  });
});

describe("dimensions", () => {
  test("m + V is refused, with the reason in words", () => {
    const result = checkRelations(relations("x = m + V"), dims({ m: "g", V: "mL" }));
    expect(plain(problem(result)?.message)).toBe(
      'In "x = m + V": m is a mass and V is a volume: they cannot be added',
    );
  });

  test("follow through a chain, and name what is not known", () => {
    const chain = relations("n = m / M(NaOH)", "c = n / V");
    const found = mustHold(checkRelations(chain, dims({ m: "g", V: "mL" })));
    expect(found.get("c")).toEqual(unitOf("mol/L").dimension);
    expect(plain(problem(checkRelations(relations("c = n / W"), dims({ n: "mol" })))?.message)).toMatch(
      /"W" has no value/,
    );
    expect(plain(problem(checkRelations(relations("y = ln(V)"), dims({ V: "mL" }))))).toMatchObject({
      message: expect.stringMatching(/plain number/) as unknown,
      position: 7,
      hint: "As in ln(V / 1 [mL])",
    });
    expect(plain(problem(checkRelations(relations("y = 2 * va"), dims({ V_a: "mL" }))))).toMatchObject({
      position: 8,
      hint: "Is V_a meant?",
    });
    expect(
      plain(problem(checkRelations(relations("y = mean(V, m)"), dims({ V: "mL", m: "g" })))?.message),
    ).toMatch(/mean needs quantities of one kind, but V is a volume and m is a mass/);
    expect(plain(problem(checkRelations(relations("y = 2 ^ V"), dims({ V: "mL" })))?.message)).toMatch(
      /power/,
    );
  });

  test("units convert, whatever they are written in", () => {
    const inputs = new Map([["V", exact(12, "mL")]]);
    const value = (source: string) =>
      evaluateRelations(relations(`y = ${source}`), inputs, stoichiometry).get("y")?.value;
    expect(value("V / 1 [L]")).toBeCloseTo(0.012, 15);
    expect(value("V * 0.789 [g/mL]")).toBeCloseTo(9.468, 12);
    expect(value("1 [% w/v] - 10 [g/L]")).toBeCloseTo(0, 12);
    // CHECKS.md: 1 °fH = 0.1 mmol/L = 10 mg/L CaCO3, 1 °e = 14.254 mg/L CaCO3, 1 °dH = 0.1783 mmol/L.
    expect(value("10 [mg/L] / M(CaCO3) / 1 [°fH]")).toBeCloseTo(1, 2);
    expect(value("14.254 [mg/L] / M(CaCO3) / 1 [°e]")).toBeCloseTo(1, 12);
    expect(value("0.1783 [mmol/L] / 1 [°dH]")).toBeCloseTo(1, 12);
    expect(value("0.1 [N] * 2 [L] / 1 [meq]")).toBeCloseTo(200, 9);
  });

  test("the figures of a result by the rules that are taught (common practice, no source)", () => {
    const typed = (text: string, factor = 1) => scaled(significantFromText(text), factor);
    const symbols = new Map(
      Object.entries({
        m: typed("0.5103"),
        V: scaled({ value: 25.6, place: -2 }, 1e-3),
        V_0: typed("0.05", 1e-3),
        c: typed("0.100"),
      }),
    );
    const shown = (source: string) =>
      showSignificant(significanceOf(mustHold(parseExpression(source)), symbols, stoichiometry));
    expect(shown("m / M(KHC8H4O4) / V")).toBe("0.09761");
    expect(shown("V - V_0")).toBe("0.02555");
    expect(shown("(V - V_0) * c")).toBe("0.00256");
    expect(shown("log10(c)")).toBe("−1.000");
    expect(shown("10 ^ log10(c)")).toBe("0.100");
    expect(shown("2 * c")).toBe("0.200");
    expect(significantFromText("250")).toEqual({ value: 250, place: 1 });
  });
});

describe("value", () => {
  const x = measured(4, "1", [{ leaf: leaf({ id: "x", label: "x", group: "x", u: 0.01 }), by: 1 }]);
  const at = (source: string, symbols: Record<string, Quantity>) =>
    evaluate(mustHold(parseExpression(source)), { symbols: new Map(Object.entries(symbols)), stoichiometry });

  test.each([
    ["x - x", 0, 0],
    ["2 * x ^ 2 - x / 4", 31, 16 - 0.25],
    ["sqrt(x)", 2, 0.25],
    ["ln(x)", Math.log(4), 0.25],
    ["log10(x)", Math.log10(4), 1 / (4 * Math.LN10)],
    ["exp(-x)", Math.exp(-4), Math.exp(-4)],
    ["x * ratio(A, B)", 2, 0.5],
    ["x * equivalents(A)", 20, 5],
    ["mean(x, 2, 3 * x)", 6, 4 / 3],
    ["min(x, 3) + max(x, 3)", 7, 1],
    ["abs(1 - x)", 3, 1],
    ["10 ^ (x / 4)", 10, (10 * Math.LN10) / 4],
    ["x ^ -1", 0.25, -1 / 16],
  ])("%s", (source, value, derivative) => {
    const q = at(source.replace("(A, B)", "(NaOH, HCl)").replace("(A)", "(KMnO4)"), { x });
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
        stoichiometry,
        known: new Map([["m", 0.5]]),
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
      stoichiometry,
    );
    expect(inUnit(back.get("c") ?? exact(0), "mol/L")).toBeCloseTo(0.1, 10);
  });

  test("says so when something is not read yet or no solution lies in reach", () => {
    const chain = relations("n = m / M(KHC8H4O4)", "c = n / V");
    const base = { relations: chain, stoichiometry, titer: "V", target: "c", value: 0.1 };
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
  const c = evaluate(mustHold(parseExpression("R * m * P / (M_K * V)")), { symbols, stoichiometry });
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
