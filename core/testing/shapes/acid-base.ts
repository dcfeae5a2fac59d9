import { aliquot, shape, stated, titer, titration } from "./shape";

const neutralization = "HCl + NaOH -> NaCl + H2O";

/** Reverse: the acid in the burette is the known one, the base in the flask the unknown. */
export const reverse = shape({
  id: "shape-reverse",
  family: "acid-base",
  title: "Base in the flask by acid in the burette",
  purpose: "The standard is in the burette.",
  equations: [{ name: "neutralization", equation: neutralization }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the base",
      inputs: [stated("c_a", "Concentration of the acid", "0.1000", "0.0002"), aliquot("NaOH"), titer("HCl")],
      relations: [
        {
          relation: "c_b = c_a * V * ratio(NaOH, HCl) / V_a",
          title: "Concentration of the base",
          unit: "mol/L",
        },
      ],
      result: { symbol: "c_b", name: "Concentration of the base", unit: "mol/L" },
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 0.1,
    }),
  ],
});

/** A chain of dilutions before the titration; results as % w/v, % w/w and % v/v, carried back to the drink. */
export const dilutionChain = shape({
  id: "shape-dilution-chain",
  family: "acid-base",
  title: "Acetic acid in a pickling liquor, diluted twice",
  purpose: "Strength of a liquor too strong to titrate as it is.",
  equations: [{ name: "neutralization", equation: "CH3COOH + NaOH -> CH3COONa + H2O" }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the diluted liquor",
      inputs: [
        stated("c_b", "Concentration of the base", "0.1000", "0.0002"),
        { symbol: "V_1", is: "pipette", label: "Liquor taken", of: "CH3COOH", per: "run", presumed: "25.00" },
        { symbol: "V_2", is: "flask", label: "First flask", of: "CH3COOH", per: "run", presumed: "250.0" },
        { symbol: "V_3", is: "pipette", label: "Taken of it", of: "CH3COOH", per: "run", presumed: "50.00" },
        { symbol: "V_4", is: "flask", label: "Second flask", of: "CH3COOH", per: "run", presumed: "100.0" },
        { symbol: "ρ", is: "constant", label: "Density of the liquor", value: "1.006", unit: "g/mL" },
        { symbol: "ρ_a", is: "constant", label: "Density of acetic acid", value: "1.049", unit: "g/mL" },
        aliquot("CH3COOH"),
        titer("NaOH"),
      ],
      relations: [
        {
          relation: "c_d = c_b * V * ratio(CH3COOH, NaOH) / V_a",
          title: "In the second flask",
          unit: "mol/L",
        },
        { relation: "c = c_d * (V_4 / V_3) * (V_2 / V_1)", title: "In the liquor", unit: "mol/L" },
        { relation: "γ = c * M(CH3COOH)", title: "Mass concentration", unit: "% w/v" },
        { relation: "w = γ / ρ", title: "Mass fraction", unit: "% w/w" },
        { relation: "φ = γ / ρ_a", title: "Volume fraction", unit: "% v/v" },
      ],
      result: { symbol: "c", name: "Acetic acid in the liquor", unit: "mol/L" },
      also: [
        { symbol: "γ", name: "Acetic acid in the liquor", unit: "% w/v" },
        { symbol: "w", name: "Acetic acid in the liquor", unit: "% w/w" },
        { symbol: "φ", name: "Acetic acid in the liquor", unit: "% v/v" },
      ],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 0.9,
    }),
  ],
});

/** Equivalent mass of an unknown solid acid, and its molar mass by the protons that are titrated. */
export const equivalentMass = shape({
  id: "shape-equivalent-mass",
  family: "acid-base",
  title: "Equivalent mass of an unknown solid acid",
  purpose: "What one mole of hydrogen ions weighs.",
  equations: [{ name: "neutralization", equation: "H2C4H4O6 + 2 NaOH -> Na2C4H4O6 + 2 H2O" }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the acid",
      inputs: [
        stated("c_b", "Concentration of the base", "0.1000", "0.0002"),
        { symbol: "z", is: "constant", label: "Protons titrated", value: "2", unit: "1" },
        {
          symbol: "m",
          is: "mass",
          weighing: "tared",
          label: "Mass of the acid",
          of: "acid",
          per: "trial",
          expect: [0.1, 0.25],
        },
        titer("NaOH"),
      ],
      relations: [
        { relation: "M_e = m / (c_b * V)", title: "Equivalent mass", unit: "g/mol" },
        { relation: "M_a = z * M_e", title: "Molar mass", unit: "g/mol" },
      ],
      result: { symbol: "M_e", name: "Equivalent mass", unit: "g/mol" },
      also: [{ symbol: "M_a", name: "Molar mass", unit: "g/mol" }],
      agree: { on: "V / m", per: "m" },
      presumed: 75,
    }),
  ],
});

/** A sample counted in drops. */
export const byDrops = shape({
  id: "shape-drops",
  family: "acid-base",
  title: "Acid of a concentrate counted in drops",
  purpose: "Strength of something used by the drop.",
  equations: [{ name: "neutralization", equation: "C6H8O7 + 3 NaOH -> Na3C6H5O7 + 3 H2O" }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the drops",
      inputs: [
        stated("c_b", "Concentration of the base", "0.1000", "0.0005"),
        {
          symbol: "V_d",
          is: "drops",
          label: "Drops of concentrate",
          of: "concentrate",
          per: "trial",
          perMl: { value: "20.0", plusMinus: "0.5" },
        },
        titer("NaOH"),
      ],
      relations: [
        { relation: "n = c_b * V * ratio(C6H8O7, NaOH)", title: "Citric acid in the flask", unit: "mmol" },
        { relation: "γ = n * M(C6H8O7) / V_d", title: "Citric acid in the concentrate", unit: "g/L" },
      ],
      result: { symbol: "γ", name: "Citric acid in the concentrate", unit: "g/L" },
      agree: { on: "V / V_d", per: "V_d" },
      presumed: 100,
    }),
  ],
});

/** A sample counted in pieces. */
export const byTablets = shape({
  id: "shape-tablets",
  family: "acid-base",
  title: "Acid in a tablet",
  purpose: "What one effervescent tablet holds, by the mean of a few.",
  equations: [{ name: "neutralization", equation: "C6H8O7 + 3 NaOH -> Na3C6H5O7 + 3 H2O" }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the tablets",
      inputs: [
        stated("c_b", "Concentration of the base", "0.5000", "0.0020"),
        { symbol: "N", is: "count", label: "Tablets", of: "tablets", per: "trial", plusMinus: "0" },
        titer("NaOH"),
      ],
      relations: [
        { relation: "n = c_b * V * ratio(C6H8O7, NaOH)", title: "Citric acid in the flask", unit: "mmol" },
        { relation: "m_1 = n * M(C6H8O7) / N", title: "Citric acid in a tablet", unit: "mg" },
      ],
      result: { symbol: "m_1", name: "Citric acid in a tablet", unit: "mg" },
      agree: { on: "V / N", per: "N" },
      presumed: 250,
    }),
  ],
});
