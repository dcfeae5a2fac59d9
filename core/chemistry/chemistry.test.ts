import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { inUnit, standardUncertainty } from "../quantity";
import { mustHold } from "../result";
import { standardAtomicWeights } from "./atomic-weights";
import {
  balance,
  describeImbalances,
  formulaTex,
  imbalances,
  molarMass,
  parseEquation,
  parseFormula,
  prettyEquation,
  prettyFormula,
  stoichiometricRatio,
} from ".";

/** CHECKS.md: IUPAC / CIAAW abridged standard atomic weights 2021. The decimals given are the ones compared. */
test.each([
  ["KHC8H4O4", "204.222"],
  ["Na2CO3", "105.988"],
  ["NaHCO3", "84.006"],
  ["Na2C2O4", "133.998"],
  ["H2C2O4·2H2O", "126.064"],
  ["(NH4)2Fe(SO4)2·6H2O", "392.13"],
  ["KMnO4", "158.032"],
  ["K2Cr2O7", "294.181"],
  ["KIO3", "214.00"],
  ["Na2S2O3·5H2O", "248.17"],
  ["Na2H2C10H12N2O8·2H2O", "372.24"],
  ["CaCO3", "100.086"],
  ["SO2", "64.06"],
  ["CuSO4·5H2O", "249.68"],
  ["C2H5OH", "46.069"],
  ["SnCl2·2H2O", "225.64"],
])("molar mass of %s is %s g/mol", (formula, expected) => {
  const decimals = expected.split(".")[1]?.length ?? 0;
  // Half of the last place given, since the published sum may have been rounded from more digits than are shown.
  const difference = Math.abs(inUnit(molarMass(formula), "g/mol") - Number(expected));
  expect(difference).toBeLessThanOrEqual(0.51 * 10 ** -decimals);
});

test("the ± of a molar mass adds within an element and in squares between elements", () => {
  // C2: 2 · 0.002 / √3; H6: 6 · 0.0002 / √3; O: 0.001 / √3
  const expected = Math.hypot(2 * 0.002, 6 * 0.0002, 0.001) / Math.sqrt(3);
  expect(standardUncertainty(molarMass("C2H5OH"))).toBeCloseTo(expected, 12);
});

describe("formulas", () => {
  test.each([
    ["Ca(H2PO4)2", { Ca: 1, H: 4, P: 2, O: 8 }, 0],
    ["K4[Fe(CN)6]·3H2O", { K: 4, Fe: 1, C: 6, N: 6, H: 6, O: 3 }, 0],
    ["CuSO₄•5H₂O", { Cu: 1, S: 1, O: 9, H: 10 }, 0],
    ["MnO4-", { Mn: 1, O: 4 }, -1],
    ["C2O4^2-", { C: 2, O: 4 }, -2],
    ["SO₄²⁻", { S: 1, O: 4 }, -2],
    ["Fe+3", { Fe: 1 }, 3],
    ["Fe^2+", { Fe: 1 }, 2],
    ["e-", {}, -1],
  ])("%s", (source, atoms, charge) => {
    const formula = mustHold(parseFormula(source));
    expect(Object.fromEntries(formula.atoms)).toEqual(atoms);
    expect(formula.charge).toBe(charge);
  });

  test.each([
    ["Na2(CO3", 3, /never closed/],
    ["NaXq", 2, /no element/],
    ["Na2CO3)", 6, /does not belong/],
    ["h2O", 0, /does not belong/],
    ["CuSO4·", 6, /missing/],
    ["", 0, /missing/],
  ])("%s is refused at position %i", (source, position, message) => {
    const result = parseFormula(source);
    expect(result).toMatchObject({ ok: false, problem: { position } });
    expect(result.ok ? "" : result.problem.message).toMatch(message);
  });

  test("are written with sub- and superscripts, in Unicode and in TeX", () => {
    expect(prettyFormula("(NH4)2Fe(SO4)2*6H2O")).toBe("(NH₄)₂Fe(SO₄)₂·6H₂O");
    expect(prettyFormula("C2O4^2-")).toBe("C₂O₄²⁻");
    expect(formulaTex("C2O4^2-")).toBe("\\mathrm{C_{2}O_{4}^{2-}}");
  });
});

describe("equations", () => {
  test("report what does not balance, charge included", () => {
    const found = imbalances(mustHold(parseEquation("MnO4- + Fe^2+ + 8 H+ -> Mn^2+ + Fe^3+ + 4 H2O")));
    expect(describeImbalances(found)).toBe("charge: 9 on the left, 5 on the right");
  });

  test.each([
    ["MnO4- + C2O4^2- + H+ -> Mn^2+ + CO2 + H2O", "2 MnO₄⁻ + 5 C₂O₄²⁻ + 16 H⁺ → 2 Mn²⁺ + 10 CO₂ + 8 H₂O"],
    [
      "Cr2O7^2- + C2H5OH + H+ -> Cr^3+ + CH3COOH + H2O",
      "2 Cr₂O₇²⁻ + 3 C₂H₅OH + 16 H⁺ → 4 Cr³⁺ + 3 CH₃COOH + 11 H₂O",
    ],
    ["IO3- + I- + H+ -> I2 + H2O", "IO₃⁻ + 5 I⁻ + 6 H⁺ → 3 I₂ + 3 H₂O"],
  ])("balance %s", (source, expected) => {
    const { left, right } = mustHold(balance(mustHold(parseEquation(source))));
    const side = (terms: typeof left) => terms.map((t) => `${t.coefficient} ${t.formula.source}`).join(" + ");
    expect(prettyEquation(`${side(left)} -> ${side(right)}`)).toBe(expected);
  });

  test("say when no set or more than one set of coefficients balances", () => {
    const said = (source: string) => {
      const result = balance(mustHold(parseEquation(source)));
      return result.ok ? "" : result.problem.message;
    };
    expect(said("NaCl -> KCl")).toMatch(/No set/);
    expect(said("H2O2 + MnO4- + H+ -> Mn^2+ + O2 + H2O")).toMatch(/More than one/);
  });

  test("give ratios whichever way a species is written", () => {
    const equation = mustHold(parseEquation("2 NaHCO3 + H2SO4 -> Na2SO4 + 2 CO2 + 2 H2O"));
    expect(stoichiometricRatio(equation, "H2SO4", "NaHCO₃")).toEqual({ ok: true, value: [1, 2] });
    expect(stoichiometricRatio(equation, "KOH", "H2SO4").ok).toBe(false);
  });

  test("a balanced equation conserves every element and the charge", () => {
    // Compounds made at random on the left; on the right the same atoms, each as its own element, so that a solution exists.
    const elements = Object.keys(standardAtomicWeights).slice(0, 20);
    const compound = fc
      .tuple(
        fc.uniqueArray(fc.constantFrom(...elements), { minLength: 1, maxLength: 3 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 3, maxLength: 3 }),
        fc.integer({ min: -3, max: 3 }),
      )
      .map(([symbols, counts, charge]) => {
        const body = symbols.map((s, i) => `${s}${counts[i] ?? 1}`).join("");
        return {
          symbols,
          text: charge === 0 ? body : `${body}^${Math.abs(charge)}${charge < 0 ? "-" : "+"}`,
        };
      });
    let balanced = 0;
    fc.assert(
      fc.property(compound, fc.integer({ min: 1, max: 4 }), ({ symbols, text }, size) => {
        const right = symbols.map((s) => `${s}${size}`).join(" + ");
        const negative = text.endsWith("-");
        const source = `${text}${text.endsWith("+") ? " + e-" : ""} -> ${right}${negative ? " + e-" : ""}`;
        const result = balance(mustHold(parseEquation(source)));
        if (!result.ok) return true;
        balanced++;
        return imbalances(result.value).length === 0;
      }),
    );
    expect(balanced).toBeGreaterThan(50);
  });
});
