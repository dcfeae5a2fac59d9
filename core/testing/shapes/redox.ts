import { aliquot, preparation, shape, stated, titer, titration } from "./shape";

/** The sample made up to the mark; what is found in an aliquot is carried back to the flask and to the sample. */
export const sampleToTheMark = shape({
  id: "shape-sample-to-the-mark",
  family: "redox",
  title: "Iron in a solution made up to the mark",
  purpose: "The mass of iron in the whole.",
  equations: [{ name: "oxidation", equation: "MnO4- + 5 Fe^2+ + 8 H+ -> Mn^2+ + 5 Fe^3+ + 4 H2O" }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the iron",
      inputs: [
        stated("c_p", "Concentration of the permanganate", "0.0200", "0.00005"),
        { symbol: "V_f", is: "flask", label: "Flask", of: "iron", per: "run", presumed: "250.0" },
        { symbol: "V_s", is: "pipette", label: "Sample taken", of: "iron", per: "run", presumed: "50.00" },
        aliquot("iron"),
        titer("KMnO4"),
      ],
      relations: [
        { relation: "n_a = c_p * V * ratio(Fe^2+, MnO4-)", title: "Iron in the aliquot", unit: "mmol" },
        { relation: "n_f = n_a * V_f / V_a", title: "Iron in the whole flask", unit: "mmol" },
        { relation: "m = n_f * M(Fe)", title: "Mass of iron in the flask", unit: "g" },
        { relation: "γ = m / V_s", title: "Iron in the sample", unit: "g/L" },
        { relation: "N = c_p * equivalents(MnO4-)", title: "Normality of the permanganate", unit: "N" },
      ],
      result: { symbol: "m", name: "Mass of iron in the flask", unit: "g" },
      also: [
        { symbol: "γ", name: "Iron in the sample", unit: "g/L" },
        { symbol: "N", name: "Normality of the permanganate", unit: "N" },
      ],
      agree: { on: "V / V_a", per: "V_a" },
      meniscus: "top",
      presumed: 1.2,
    }),
  ],
});

/** Indirect, and a chain of three: iodate fixes thiosulfate, thiosulfate finds dissolved oxygen by way of iodine. */
export const dissolvedOxygen = shape({
  id: "shape-indirect-chain",
  family: "redox",
  title: "Dissolved oxygen by thiosulfate, standardized by iodate",
  purpose: "Oxygen in a pool's water.",
  equations: [
    { name: "fixing", equation: "2 Mn^2+ + O2 + 4 OH- -> 2 MnO2 + 2 H2O" },
    { name: "release", equation: "MnO2 + 2 I- + 4 H+ -> Mn^2+ + I2 + 2 H2O" },
    { name: "iodate", equation: "KIO3 + 5 I- + 6 H+ -> 3 I2 + 3 H2O + K+" },
    { name: "titration", equation: "I2 + 2 S2O3^2- -> 2 I- + S4O6^2-" },
  ],
  stages: [
    preparation({
      key: "prepare",
      title: "Make the iodate standard",
      inputs: [
        {
          symbol: "m",
          is: "mass",
          weighing: "addition",
          label: "Mass of iodate",
          of: "KIO3",
          per: "run",
          before: "Flask empty",
          after: "Flask with iodate",
          expect: [0.1, 0.2],
          densityGPerMl: 3.93,
        },
        {
          symbol: "P",
          is: "purity",
          label: "Purity of the iodate",
          of: "KIO3",
          per: "run",
          presumed: { percent: "99.95", plusMinus: "0.05" },
        },
        { symbol: "V_f", is: "flask", label: "Flask", of: "KIO3", per: "run", presumed: "250.0" },
      ],
      relations: [
        { relation: "c_i = m * P / M(KIO3) / V_f", title: "Concentration of the iodate", unit: "mol/L" },
      ],
      result: { symbol: "c_i", name: "Concentration of the iodate", unit: "mol/L" },
    }),
    titration({
      key: "standardize",
      title: "Standardize the thiosulfate",
      inputs: [
        {
          symbol: "c_i",
          is: "result",
          label: "Concentration of the iodate",
          of: "KIO3",
          per: "run",
          stage: "prepare",
        },
        aliquot("KIO3"),
        titer("Na2S2O3"),
      ],
      relations: [
        {
          relation: "c_t = c_i * V_a * ratio(S2O3^2-, KIO3) / V",
          title: "Concentration of the thiosulfate",
          unit: "mol/L",
        },
      ],
      result: { symbol: "c_t", name: "Concentration of the thiosulfate", unit: "mol/L", assigns: "Na2S2O3" },
      presumed: 0.02,
    }),
    titration({
      key: "determine",
      title: "Titrate the fixed oxygen",
      inputs: [
        {
          symbol: "c_t",
          is: "result",
          label: "Concentration of the thiosulfate",
          of: "Na2S2O3",
          per: "run",
          stage: "standardize",
        },
        { symbol: "V_b", is: "constant", label: "Bottle", value: "300.0", unit: "mL", plusMinus: "0.3" },
        {
          symbol: "V_r",
          is: "constant",
          label: "Reagents in the bottle",
          value: "4.0",
          unit: "mL",
          plusMinus: "0.1",
        },
        aliquot("the fixed sample", "100.00"),
        titer("Na2S2O3"),
      ],
      relations: [
        { relation: "n = c_t * V * ratio(O2, S2O3^2-)", title: "Oxygen in the aliquot", unit: "mmol" },
        {
          relation: "γ = n * M(O2) / V_a * V_b / (V_b - V_r)",
          title: "Oxygen in the water, corrected for the reagents",
          unit: "mg/L",
        },
      ],
      result: { symbol: "γ", name: "Dissolved oxygen", unit: "mg/L" },
      presumed: 8,
    }),
  ],
});

/** Excess, blank and aliquot at once: dichromate in excess, what is left found by iron(II), against a blank. */
export const blankDifference = shape({
  id: "shape-blank-difference",
  family: "redox",
  title: "Oxidizable matter in tank water by dichromate",
  purpose: "Oxygen demand: what a measured excess of dichromate loses, against a blank.",
  equations: [
    { name: "titration", equation: "Cr2O7^2- + 6 Fe^2+ + 14 H+ -> 2 Cr^3+ + 6 Fe^3+ + 7 H2O" },
    { name: "oxygen", equation: "O2 + 4 Fe^2+ + 4 H+ -> 4 Fe^3+ + 2 H2O" },
  ],
  stages: [
    titration({
      key: "blank",
      title: "Titrate the blank",
      inputs: [titer("Fe^2+")],
      relations: [{ relation: "V_0 = V", title: "Titer of the blank", unit: "mL" }],
      result: { symbol: "V_0", name: "Titer of the blank", unit: "mL" },
      presumed: 25,
    }),
    titration({
      key: "determine",
      title: "Titrate the sample",
      inputs: [
        {
          symbol: "V_0",
          is: "result",
          label: "Titer of the blank",
          of: "Fe^2+",
          per: "run",
          stage: "blank",
        },
        stated("c", "Concentration of the iron(II)", "0.1000", "0.0003"),
        aliquot("tank water", "20.00"),
        titer("Fe^2+"),
      ],
      relations: [
        { relation: "n = (V_0 - V) * c * ratio(O2, Fe^2+)", title: "Oxygen used up", unit: "mmol" },
        { relation: "γ = n * M(O2) / V_a", title: "Oxygen demand", unit: "mg/L" },
      ],
      result: { symbol: "γ", name: "Oxygen demand", unit: "mg/L" },
      agree: { on: "γ" },
      presumed: 300,
    }),
  ],
});

/** Electrons given by a reductant, from known amounts of both; unrounded and as a whole number. */
export const electronCount = shape({
  id: "shape-electron-count",
  family: "redox",
  title: "Change of oxidation number of a reductant",
  purpose: "How many electrons iron(II) gives.",
  equations: [{ name: "reduction", equation: "MnO4- + 8 H+ + 5 e- -> Mn^2+ + 4 H2O" }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the reductant",
      inputs: [
        stated("c_p", "Concentration of the permanganate", "0.0200", "0.0001"),
        stated("c_r", "Concentration of the reductant", "0.1000", "0.0003"),
        aliquot("the reductant"),
        titer("KMnO4"),
      ],
      relations: [
        { relation: "n_e = c_p * V * ratio(e-, MnO4-)", title: "Electrons taken", unit: "mmol" },
        { relation: "n_r = c_r * V_a", title: "Reductant in the flask", unit: "mmol" },
        { relation: "z = n_e / n_r", title: "Electrons given by one", unit: "1" },
      ],
      result: { symbol: "z", name: "Electrons given by one", unit: "1", nearestWhole: true },
      agree: { on: "V / V_a", per: "V_a" },
      meniscus: "top",
      presumed: 1,
    }),
  ],
});

/** An empirical index with its factors: logarithm, temperature, blank. ISO 302 / TAPPI T 236, as CHECKS.md gives it. */
export const kappaNumber = shape({
  id: "shape-kappa",
  family: "redox",
  title: "Kappa number of a pulp",
  purpose: "How much permanganate a pulp uses.",
  equations: [{ name: "titration", equation: "I2 + 2 S2O3^2- -> 2 I- + S4O6^2-" }],
  stages: [
    titration({
      key: "blank",
      title: "Titrate the blank",
      inputs: [titer("Na2S2O3")],
      relations: [{ relation: "b = V", title: "Titer of the blank", unit: "mL" }],
      result: { symbol: "b", name: "Titer of the blank", unit: "mL" },
      presumed: 48,
    }),
    titration({
      key: "determine",
      title: "Titrate the pulp",
      inputs: [
        { symbol: "b", is: "result", label: "Titer of the blank", of: "Na2S2O3", per: "run", stage: "blank" },
        {
          symbol: "N",
          is: "given",
          label: "Normality of the thiosulfate",
          per: "run",
          unit: "N",
          presumed: { value: "0.2000", plusMinus: "0.0005" },
        },
        {
          symbol: "w",
          is: "mass",
          weighing: "tared",
          label: "Pulp, oven-dry",
          of: "pulp",
          per: "trial",
          expect: [1, 3],
        },
        {
          symbol: "t",
          is: "temperature",
          label: "Temperature of the reaction",
          per: "trial",
          plusMinus: "0.2",
        },
        titer("Na2S2O3"),
      ],
      relations: [
        { relation: "p = (b - V) * N / 0.1 [N]", title: "Permanganate used", unit: "mL" },
        {
          relation: "f = 10 ^ (0.00093 * (p / 1 [mL] - 50))",
          title: "Correction to half of the permanganate",
          unit: "1",
        },
        {
          relation: "κ = p / 1 [mL] * f / (w / 1 [g]) * (1 + 0.013 * (25 [°C] - t) / 1 [°C])",
          title: "Kappa number at 25 °C",
          unit: "1",
        },
      ],
      result: { symbol: "κ", name: "Kappa number", unit: "1" },
      agree: { on: "κ" },
      presumed: 25,
    }),
  ],
});

/** Direct, with a limit that the result is held against, its own ± considered. */
export const againstALimit = shape({
  id: "shape-limit",
  family: "redox",
  title: "Sulfur dioxide in a drink by iodine",
  purpose: "Whether a drink keeps the limit that you enter.",
  equations: [{ name: "titration", equation: "SO2 + I2 + 2 H2O -> SO4^2- + 2 I- + 4 H+" }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the drink",
      inputs: [
        stated("c", "Concentration of the iodine", "0.0100", "0.00005"),
        { symbol: "L", is: "given", label: "Legal limit", per: "run", unit: "mg/L", optional: true },
        aliquot("the drink", "20.00"),
        titer("I2"),
      ],
      relations: [
        { relation: "γ = c * V * ratio(SO2, I2) * M(SO2) / V_a", title: "Sulfur dioxide", unit: "mg/L" },
      ],
      result: { symbol: "γ", name: "Sulfur dioxide", unit: "mg/L" },
      accept: { against: "limit", symbol: "L", bound: "at most" },
      meniscus: "top",
      presumed: 150,
    }),
  ],
});
