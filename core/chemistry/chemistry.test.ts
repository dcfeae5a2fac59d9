import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import katex from "katex";
import "katex/contrib/mhchem";
import { MF } from "mf-parser";
import { inUnit, standardUncertainty } from "../quantity";
import { mustHold } from "../result";
import { standardAtomicWeights } from "./atomic-weights";
import {
  balance,
  combineHalfReactions,
  completeHalfReaction,
  describeImbalances,
  elementShares,
  equationMhchem,
  equationText,
  equivalentsPerMole,
  formulaTex,
  imbalances,
  molarMass,
  oxidationNumbers,
  parseEquation,
  parseFormula,
  prettyEquation,
  prettyFormula,
  schemeRatio,
  stoichiometricRatio,
} from ".";
import { plain } from "../testing/plain";

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

/** Against a general-purpose formula library from the registry (mf-parser), which takes its own isotope table. */
test("molar masses agree with an independent library within the ± of the atomic weights", () => {
  // The elements of a teaching bench; for some rare ones (selenium) the two tables are of different years.
  const elements = "H C N O F Na Mg Al Si P S Cl K Ca Cr Mn Fe Co Ni Cu Zn Br Ag Sn I Ba".split(" ");
  const part = fc.tuple(fc.constantFrom(...elements), fc.integer({ min: 1, max: 12 }));
  fc.assert(
    fc.property(fc.array(part, { minLength: 1, maxLength: 4 }), part, (parts, [element, times]) => {
      const write = (list: [string, number][]) => list.map(([e, n]) => e + (n === 1 ? "" : n)).join("");
      const formula = `${write(parts)}(${element}2O)${times + 1}`;
      const theirs = new MF(formula).getInfo().mass;
      const shares = elementShares(formula);
      const slack = shares.reduce((sum, { count, plusMinus }) => sum + count * plusMinus, 0);
      // Both tables are rounded to five or more figures: half a unit of the fifth is allowed on top of the ±.
      expect(Math.abs(molarMass(formula).value - theirs)).toBeLessThan(slack + 1e-5 * theirs);
    }),
  );
  expect(Object.keys(standardAtomicWeights)).toHaveLength(84);
});

test("the ± of a molar mass adds within an element and in squares between elements", () => {
  // Widths of the standard intervals: C 0.0020, H 0.00027, O 0.00074; each u is width / √12 (GUM 4.3.8).
  const expected = Math.hypot(2 * 0.002, 6 * 0.00027, 0.00074) / Math.sqrt(12);
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
    ["I3-", { I: 3 }, -1],
    ["NH4+", { N: 1, H: 4 }, 1],
    ["C17H35COO-", { C: 18, H: 35, O: 2 }, -1],
    ["C16H33+", { C: 16, H: 33 }, 1],
  ])("%s", (source, atoms, charge) => {
    const formula = mustHold(parseFormula(source));
    expect(Object.fromEntries(formula.atoms)).toEqual(atoms);
    expect(formula.charge).toBe(charge);
  });

  test.each([
    ["Na2(CO3", 3, /never closed/],
    ["NaXq", 2, /not an element/],
    ["Na2CO3)", 6, /is not allowed here/],
    ["h2O", 0, /is not allowed here/],
    ["CuSO4·", 6, /missing/],
    ["", 0, /missing/],
    ["Fe3+", 0, /Fe\^3\+ for the charge, Fe3\^\+ for the atoms/],
    ["Cr2O72-", 4, /72 atoms\? For the charge write Cr2O7\^2-/],
    ["SO42-", 2, /write SO4\^2-/],
    ["Fe(CN)64-", 6, /write Fe\(CN\)6\^4-/],
    ["NaCl2(", 5, /never closed/],
  ])("%s is refused at position %i", (source, position, message) => {
    const result = parseFormula(source);
    expect(plain(result)).toMatchObject({ ok: false, problem: { position } });
    expect(plain(result.ok ? "" : result.problem.message)).toMatch(message);
  });

  test("are written with sub- and superscripts, in Unicode and in TeX", () => {
    expect(prettyFormula("(NH4)2Fe(SO4)2*6H2O")).toBe("(NH₄)₂Fe(SO₄)₂·6H₂O");
    expect(prettyFormula("C2O4^2-")).toBe("C₂O₄²⁻");
    expect(equationMhchem("Fe+3 + SO₄²⁻ -> FeSO4+")).toBe("\\ce{Fe^3+ + SO4^2- -> FeSO4^+}");
    expect(formulaTex("C2O4^2-")).toBe("\\mathrm{C_{2}O_{4}^{2-}}");
  });
});

describe("equations", () => {
  test("report what does not balance, charge included", () => {
    const found = imbalances(mustHold(parseEquation("MnO4- + Fe^2+ + 8 H+ -> Mn^2+ + Fe^3+ + 4 H2O")));
    expect(plain(describeImbalances(found))).toBe("charge: 9 on the left, 5 on the right");
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
    const message = (source: string) => {
      const result = balance(mustHold(parseEquation(source)));
      return result.ok ? "" : result.problem.message;
    };
    expect(plain(message("NaCl -> KCl"))).toMatch(/No set/);
    expect(plain(message("H2O2 + MnO4- + H+ -> Mn^2+ + O2 + H2O"))).toMatch(/More than one/);
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

describe("ratios over a scheme of equations", () => {
  const scheme = (...sources: string[]) => sources.map((source) => mustHold(parseEquation(source)));
  const oxygen = scheme(
    "2 Mn^2+ + O2 + 4 OH- -> 2 MnO2 + 2 H2O",
    "MnO2 + 2 I- + 4 H+ -> Mn^2+ + I2 + 2 H2O",
    "IO3- + 5 I- + 6 H+ -> 3 I2 + 3 H2O",
    "I2 + 2 S2O3^2- -> 2 I- + S4O6^2-",
  );

  /** Common practice, no source: 4 mol thiosulfate per mol O2; iodate gives three iodine, six thiosulfate. */
  test.each([
    ["S2O3^2-", "O2", [4, 1]],
    ["O2", "S2O3^2-", [1, 4]],
    ["S2O3^2-", "IO3-", [6, 1]],
    ["I2", "O2", [2, 1]],
    ["S2O3^2-", "I2", [2, 1]],
    ["S4O6^2-", "O2", [2, 1]],
  ])("%s to %s", (of, per, ratio) => {
    expect(mustHold(schemeRatio(oxygen, of, per))).toEqual(ratio);
  });

  test("say when nothing links two species, or when two ways disagree", () => {
    const message = (...args: Parameters<typeof schemeRatio>) => {
      const result = schemeRatio(...args);
      return result.ok ? result.value.join(":") : result.problem.message;
    };
    // Water and hydrogen ions stand in many equations without linking them.
    expect(plain(message(scheme("HCl + NaOH -> NaCl + H2O", "SO3 + H2O -> H2SO4"), "NaOH", "SO3"))).toMatch(
      /none links them/,
    );
    expect(plain(message(oxygen, "KOH", "O2"))).toMatch(/No equation of this method holds both KOH and O₂/);
    expect(plain(message(oxygen, "Xx", "O2"))).toMatch(/not an element/);
    const doubtful = scheme("Cu + Cl2 -> CuCl2", "2 Cu + Cl2 -> 2 CuCl");
    expect(plain(message(doubtful, "Cu", "Cl2"))).toMatch(/disagree about the ratio of Cu and Cl₂/);
  });
});

test("mhchem and KaTeX typeset what is written for them", () => {
  for (const source of [
    "2 MnO4- + 5 C2O4^2- + 16 H+ -> 2 Mn^2+ + 10 CO2 + 8 H2O",
    "CuSO₄·5H₂O -> CuSO4 + 5 H2O",
  ]) {
    const html = katex.renderToString(equationMhchem(source), { throwOnError: true });
    expect(html).toContain("katex-html");
  }
});

describe("half-reactions", () => {
  /** Textbook redox equations, from memory. */
  test.each([
    ["MnO4- -> Mn^2+", "acid", "MnO4- + 8 H+ + 5 e- -> Mn^2+ + 4 H2O"],
    ["MnO4- -> MnO2", "base", "MnO4- + 2 H2O + 3 e- -> MnO2 + 4 OH-"],
    ["Cr2O7^2- -> Cr^3+", "acid", "Cr2O7^2- + 14 H+ + 6 e- -> 2 Cr^3+ + 7 H2O"],
    ["H2C2O4 -> CO2", "acid", "H2C2O4 -> 2 CO2 + 2 H+ + 2 e-"],
    ["C2H5OH -> CH3COOH", "acid", "C2H5OH + H2O -> CH3COOH + 4 H+ + 4 e-"],
    ["S2O3^2- -> S4O6^2-", "acid", "2 S2O3^2- -> S4O6^2- + 2 e-"],
    ["H2O2 -> O2", "acid", "H2O2 -> O2 + 2 H+ + 2 e-"],
    ["IO3- -> I2", "acid", "2 IO3- + 12 H+ + 10 e- -> I2 + 6 H2O"],
    ["ClO- -> Cl-", "base", "ClO- + H2O + 2 e- -> Cl- + 2 OH-"],
  ] as const)("%s in %s is completed to %s", (couple, medium, whole) => {
    expect(equationText(mustHold(completeHalfReaction(couple, medium)))).toBe(whole);
  });

  test.each([
    ["MnO4-", "C2O4^2- -> CO2", "2 MnO4- + 16 H+ + 5 C2O4^2- -> 2 Mn^2+ + 8 H2O + 10 CO2"],
    ["MnO4-", "Fe^2+ -> Fe^3+", "MnO4- + 8 H+ + 5 Fe^2+ -> Mn^2+ + 4 H2O + 5 Fe^3+"],
    ["MnO4-", "H2O2 -> O2", "2 MnO4- + 6 H+ + 5 H2O2 -> 2 Mn^2+ + 8 H2O + 5 O2"],
  ])("%s with %s give a net equation that balances", (_oxidant, couple, net) => {
    const reduction = mustHold(completeHalfReaction("MnO4- -> Mn^2+", "acid"));
    const combined = mustHold(
      combineHalfReactions(reduction, mustHold(completeHalfReaction(couple, "acid"))),
    );
    expect(combined.source).toBe(net);
    expect(imbalances(combined)).toEqual([]);
  });

  test("say what is wrong: lost elements, two reductions, a couple that needs another medium's ions", () => {
    const message = (result: ReturnType<typeof completeHalfReaction>) =>
      result.ok ? result.value.source : result.problem.message;
    expect(plain(message(completeHalfReaction("MnO4- -> Fe^2+", "acid")))).toMatch(
      /No set|cannot be completed/,
    );
    expect(plain(message(completeHalfReaction("MnO4- + Fe^2+ -> Mn^2+ + Fe^3+", "acid")))).toMatch(
      /More than one/,
    );
    const reduction = mustHold(completeHalfReaction("MnO4- -> Mn^2+", "acid"));
    expect(plain(message(combineHalfReactions(reduction, reduction)))).toMatch(
      /Both half-reactions take up electrons/,
    );
    expect(plain(message(balance(mustHold(parseEquation("HCl + HCl -> H2 + Cl2")))))).toMatch(
      /appears twice/,
    );
  });
});

describe("oxidation numbers (textbook, from memory)", () => {
  test.each([
    ["KMnO4", { K: 1, Mn: 7, O: -2 }],
    ["Cr2O7^2-", { Cr: 6, O: -2 }],
    ["S2O3^2-", { S: 2, O: -2 }],
    ["S4O6^2-", { S: 2.5, O: -2 }],
    ["H2O2", { H: 1, O: -1 }],
    ["KO2", { K: 1, O: -0.5 }],
    ["NaH", { Na: 1, H: -1 }],
    ["O2", { O: 0 }],
    ["I3-", { I: -1 / 3 }],
    ["CuSO4·5H2O", { Cu: 2, S: 6, O: -2, H: 1 }],
    ["(NH4)2Fe(SO4)2·6H2O", { N: -3, H: 1, Fe: 2, S: 6, O: -2 }],
    ["FeCl3", { Fe: 3, Cl: -1 }],
    ["KSCN", { K: 1, S: -2, C: 4, N: -3 }],
    ["HSO3-", { H: 1, S: 4, O: -2 }],
    ["FeS", { Fe: 2, S: -2 }],
    ["OF2", { O: 2, F: -1 }],
  ])("%s", (formula, numbers) => {
    const found = mustHold(oxidationNumbers(formula));
    expect(Object.fromEntries(found.map(({ element, number }) => [element, number]))).toEqual(numbers);
  });

  test("where the rules leave two elements open, that is said", () => {
    expect(plain(oxidationNumbers("CuFeW"))).toMatchObject({ ok: false });
    expect(plain(oxidationNumbers("Xx"))).toMatchObject({ ok: false, problem: { position: 0 } });
  });

  test("sum to the charge of the species", () => {
    const known = [
      "H2SO4",
      "NH4NO3",
      "Na2S2O3·5H2O",
      "PbCrO4",
      "HPO4^2-",
      "NO2-",
      "Fe2(SO4)3",
      "K4[Fe(CN)6]",
    ];
    fc.assert(
      fc.property(fc.constantFrom(...known), (formula) => {
        const sum = mustHold(oxidationNumbers(formula)).reduce(
          (s, { count, number }) => s + count * number,
          0,
        );
        expect(sum).toBeCloseTo(mustHold(parseFormula(formula)).charge, 9);
      }),
    );
  });
});

/** Five for permanganate and the others: textbook facts, from memory. */
test.each([
  ["MnO4- + 5 Fe^2+ + 8 H+ -> Mn^2+ + 5 Fe^3+ + 4 H2O", "MnO4-", 5],
  ["2 MnO4- + 5 C2O4^2- + 16 H+ -> 2 Mn^2+ + 10 CO2 + 8 H2O", "C2O4^2-", 2],
  ["MnO4- + 8 H+ + 5 e- -> Mn^2+ + 4 H2O", "MnO4-", 5],
  ["IO3- + 5 I- + 6 H+ -> 3 I2 + 3 H2O", "IO3-", 5],
  ["I2 + 2 S2O3^2- -> 2 I- + S4O6^2-", "S2O3^2-", 1],
  ["I2 + 2 S2O3^2- -> 2 I- + S4O6^2-", "I2", 2],
  ["Na2CO3 + 2 HCl -> 2 NaCl + H2O + CO2", "Na2CO3", 2],
  ["2 NaHCO3 + H2SO4 -> Na2SO4 + 2 H2O + 2 CO2", "H2SO4", 2],
  ["H2SO4 + NaOH -> NaHSO4 + H2O", "H2SO4", 1],
  ["KHC8H4O4 + NaOH -> KNaC8H4O4 + H2O", "KHC8H4O4", 1],
  ["2 Cr2O7^2- + 3 C2H5OH + 16 H+ -> 4 Cr^3+ + 3 CH3COOH + 11 H2O", "C2H5OH", 4],
])("in %s one mole of %s has %d equivalents", (equation, species, equivalents) => {
  expect(mustHold(equivalentsPerMole(mustHold(parseEquation(equation)), species))).toBeCloseTo(
    equivalents,
    9,
  );
});

describe("formulas as certificates and labels write them", () => {
  // CaSO4: 136.134; half a water: 9.0075 (IUPAC 2021).
  test.each([
    ["CaSO4·0.5H2O", 145.142],
    ["CaSO4·½H2O", 145.142],
    ["CaSO4·1/2H2O", 145.142],
    ["CaSO4 · 0.5 H2O", 145.142],
    ["CaSO4.0.5H2O", 145.142],
    ["2CaSO4·H2O", 290.283],
    ["CuSO4 * 5 H2O", 249.677],
    ["CuSO4.5H2O", 249.677],
    ["CaCO3(s)", 100.086],
    ["MnO4-(aq)", 118.934],
  ])("%s weighs %d g/mol", (formula, grams) => {
    expect(molarMass(formula).value).toBeCloseTo(grams, 2);
  });

  test("a state behind a charge and half a water keep their place in what is shown", () => {
    expect(prettyFormula("SO4^2-(aq)")).toBe("SO₄²⁻(aq)");
    expect(prettyFormula("CaSO4 · 0.5 H2O")).toBe("CaSO₄·0.5H₂O");
    expect(formulaTex("CaSO4·½H2O")).toContain("\\tfrac{1}{2}");
    expect(plain(parseFormula("Na Cl"))).toMatchObject({ ok: false, problem: { position: 2 } });
    const half = mustHold(parseEquation("2 CaSO4·½H2O + 3 H2O -> 2 CaSO4·2H2O"));
    expect(imbalances(half)).toEqual([]);
  });

  const numbers = (formula: string) => {
    const found = oxidationNumbers(formula);
    return found.ok
      ? found.value
          .map((n) => `${n.element}${n.count} ${n.number}`)
          .sort()
          .join(", ")
      : null;
  };
  test.each([
    ["S2O8^2-", "O2 -1, O6 -2, S2 6"],
    ["CrO5", "Cr1 6, O1 -2, O4 -1"],
    ["HSO5-", "H1 1, O2 -1, O3 -2, S1 6"],
    ["NaBH4", "B1 3, H4 -1, Na1 1"],
    ["LiAlH4", "Al1 3, H4 -1, Li1 1"],
    ["SiH4", "H4 -1, Si1 4"],
    ["NH3", "H3 1, N1 -3"],
    ["Na2S2", "Na2 1, S2 -1"],
    ["MoS2", "Mo1 4, S2 -2"],
    ["OF2", "F2 -1, O1 2"],
    // Bonds between like atoms: the rules alone would give iron(IV) and manganese(IV).
    ["FeS2", null],
    ["CoS2", null],
    ["MnS2", null],
    ["CuO2", null],
  ])("oxidation numbers of %s: %s, and never a confident wrong one", (formula, expected) => {
    expect(numbers(formula)).toBe(expected);
  });
});
