import { describe, expect, test } from "@jest/globals";
import { type Method, type TitrationStage } from "~/core/method";
import { compileMethod, type MethodProblemCode } from "~/core/stages";
import { baseByPhthalateThenAcid } from "./acid-base/base-by-phthalate-then-acid";

const [standardize, determine] = baseByPhthalateThenAcid.stages as [TitrationStage, TitrationStage];

const withStage = (change: Partial<TitrationStage>): Method => ({
  ...baseByPhthalateThenAcid,
  stages: [{ ...standardize, ...change }, determine],
});

const relations = (...lines: readonly string[]) =>
  lines.map((relation) => ({ relation, title: "Some amount", unit: "mol/L" }));

/** What an instructor who writes a method gets wrong, and what the compiler finds; what it says of each is tested in words/. */
describe("a method that does not pass the check is refused by a code", () => {
  test.each<[string, Method, MethodProblemCode]>([
    [
      "an equation that loses atoms",
      {
        ...baseByPhthalateThenAcid,
        equations: [{ name: "wrong", equation: "Na2CO3 + HCl -> NaCl + H2O + CO2" }],
      },
      "equation-unbalanced",
    ],
    [
      "an equation with a formula that cannot be read",
      { ...baseByPhthalateThenAcid, equations: [{ name: "wrong", equation: "HCl + NaOG -> NaCl" }] },
      "equation-unreadable",
    ],
    ["unlike things added", withStage({ relations: relations("n_s = m + V") }), "relations-disagree"],
    [
      "a symbol that is never read",
      withStage({ relations: relations("c_b = m / M(NaOH) / V_0") }),
      "relations-disagree",
    ],
    ["a symbol defined twice", withStage({ relations: relations("m = m * P") }), "relations-disagree"],
    [
      "a result in a unit it cannot have",
      withStage({ relations: relations("c_b = m * P / V") }),
      "not-in-unit",
    ],
    [
      "a result that is never computed",
      withStage({ result: { ...standardize.result, symbol: "c_x" } }),
      "result-not-computed",
    ],
    [
      "a ratio of species that no equation holds",
      withStage({ relations: relations("c_b = m / M(NaOH) * ratio(KOH, NaOH) / V") }),
      "ratio-missing",
    ],
    [
      "titers compared per something that is not read",
      withStage({ agree: { on: "V / m", per: "w" } }),
      "compared-per-unread",
    ],
    ["something compared that is no titer", withStage({ agree: { on: "m" } }), "compared-no-titer"],
    [
      "a stage without a titer",
      withStage({ inputs: standardize.inputs.filter((input) => input.is !== "titer") }),
      "titer-missing",
    ],
    [
      "a stage that builds on a later one",
      { ...baseByPhthalateThenAcid, stages: [determine, standardize] },
      "stage-before-its-source",
    ],
    [
      "equations that disagree about a ratio",
      {
        ...baseByPhthalateThenAcid,
        equations: [
          ...baseByPhthalateThenAcid.equations,
          { name: "other", equation: "KHC8H4O4 + 2 NaOH -> KNaC8H4O4 + NaOH + H2O" },
        ],
      },
      "ratio-missing",
    ],
  ])("%s", (_what, method, code) => {
    const compiled = compileMethod(method);
    expect(compiled.ok ? "accepted" : compiled.problem.code).toBe(code);
  });
});
