import { describe, expect, test } from "@jest/globals";
import { type Method, type TitrationStage } from "~/core/method";
import { compileMethod } from "~/core/stages";
import { baseByPhthalateThenAcid } from "./base-by-phthalate-then-acid";

const [standardize, determine] = baseByPhthalateThenAcid.stages as [TitrationStage, TitrationStage];

const withStage = (change: Partial<TitrationStage>): Method => ({
  ...baseByPhthalateThenAcid,
  stages: [{ ...standardize, ...change }, determine],
});

const relations = (...lines: readonly string[]) =>
  lines.map((relation) => ({ relation, title: "Some amount", unit: "mol/L" }));

/** What an instructor who writes a method gets wrong, and what the compiler says about it. */
describe("a method that does not hold together is refused in words", () => {
  test.each<[string, Method, RegExp]>([
    [
      "an equation that loses atoms",
      {
        ...baseByPhthalateThenAcid,
        equations: [{ name: "wrong", equation: "Na2CO3 + HCl -> NaCl + H2O + CO2" }],
      },
      /does not balance: Na: 2 on the left, 1 on the right; H: 1 on the left, 2 on the right/,
    ],
    [
      "an equation with a formula that cannot be read",
      { ...baseByPhthalateThenAcid, equations: [{ name: "wrong", equation: "HCl + NaOG -> NaCl" }] },
      /"G" is no element/,
    ],
    [
      "unlike things added",
      withStage({ relations: relations("n_s = m + V") }),
      /m is a mass and V is a volume: they cannot be added/,
    ],
    [
      "a symbol that is never read",
      withStage({ relations: relations("c_b = m / M(NaOH) / V_0") }),
      /"V_0" is neither read nor computed before this line\. Known here: m, P, V/,
    ],
    ["a symbol defined twice", withStage({ relations: relations("m = m * P") }), /m already has a meaning/],
    [
      "a result in a unit it cannot have",
      withStage({ relations: relations("c_b = m * P / V") }),
      /c_b is a mass concentration and cannot be shown in mol\/L/,
    ],
    [
      "a result that is never computed",
      withStage({ result: { ...standardize.result, symbol: "c_x" } }),
      /The result c_x is never computed/,
    ],
    [
      "a ratio of species that no equation holds",
      withStage({ relations: relations("c_b = m / M(NaOH) * ratio(KOH, NaOH) / V") }),
      /No equation of this method holds both KOH and NaOH/,
    ],
    [
      "titers compared per something that is not read",
      withStage({ agree: { on: "V / m", per: "w" } }),
      /"w" is not read in this stage/,
    ],
    [
      "something compared that is no titer",
      withStage({ agree: { on: "m" } }),
      /What must agree, m, is no titer/,
    ],
    [
      "a stage without a titer",
      withStage({ inputs: standardize.inputs.filter((input) => input.is !== "titer") }),
      /needs an input that is the titer/,
    ],
    [
      "a stage that builds on a later one",
      { ...baseByPhthalateThenAcid, stages: [determine, standardize] },
      /builds on a stage that does not come before it/,
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
      /disagree about the ratio of NaOH and KHC₈H₄O₄/,
    ],
  ])("%s", (_what, method, message) => {
    const compiled = compileMethod(method);
    expect(compiled.ok ? "accepted" : compiled.problem.message).toMatch(message);
  });
});
