import { defineMethod } from "~/core/method";
import { authority, baseHazards, neutralWaste, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import {
  calibratedMeter,
  calibrateMeter,
  curveInput,
  electrodeCautions,
  meterGlass,
  oneEnd,
  stirred,
  takePoints,
  waterFor,
} from "../../parts/curves";
import { knownBase, weighedSolid } from "../../parts/inputs";
import { exactly, g } from "../../parts/reagents";

/** An unknown solid acid with two protons: equivalent mass, both constants, and which acid it may be. */
export const diproticAcidByCurve = defineMethod({
  id: "diprotic-acid-by-curve",
  version: 1,
  family: "acid-base",
  title: "Unknown solid acid by its pH curve: equivalent mass, pKa values, name",
  purpose:
    "Find what one mole of protons of an unknown solid acid weighs, how many protons a molecule has and how strongly it holds them, and so which acid it is.",
  equations: [{ name: "neutralization", equation: "H2C4H4O6 + 2 NaOH -> Na2C4H4O6 + 2 H2O" }],
  substances: { H2C4H4O6: "tartaric acid, as an example", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownBase,
        weighedSolid("the acid", "Mass of acid", [0.15, 0.25]),
        calibratedMeter,
        curveInput("NaOH", "pH", "0.03"),
      ],
      relations: [
        { relation: "n_b = c_b * V", title: "Base to the last equivalence point", unit: "mmol" },
        { relation: "M_e = m / n_b", title: "Equivalent mass: of one mole of protons", unit: "g/mol" },
        { relation: "M_a = z * M_e", title: "Molar mass", unit: "g/mol" },
      ],
      result: { symbol: "M_e", name: "Equivalent mass of the acid", unit: "g/mol" },
      also: [
        { symbol: "z", name: "Protons up to the last jump", unit: "1" },
        { symbol: "M_a", name: "Molar mass of the acid", unit: "g/mol" },
        { symbol: "pK_1", name: "First pKa", unit: "1" },
        { symbol: "pK_2", name: "Second pKa", unit: "1" },
      ],
      plausible: [
        { rule: "between", symbol: "M_e", from: 30, unit: "g/mol" },
        { rule: "between", symbol: "pK_1", from: 0, to: 14, unit: "1" },
        { rule: "not below", symbol: "pK_2", other: "pK_1" },
      ],
      presumed: 75,
      curve: {
        titrant: { symbol: "c_b", usual: 0.1 },
        flaskMl: 100,
        ends: oneEnd,
        constants: ["pK_1", "pK_2"],
        protons: "z",
        until: 11,
        largestMl: 2,
        theory: { is: "acid", pKas: [3.036, 4.366] },
      },
      reagents: [
        exactly("the acid, dry", g("0.15", "0.25"), "weighed into each beaker", "m"),
        waterFor("100", "to dissolve it and cover the electrode"),
      ],
      conditions: stirred,
      steps: [
        calibrateMeter,
        "Weigh 0.15 to 0.25 g of the acid by difference into a beaker; dissolve it in about 100 mL of water.",
        ...buretteSteps("base"),
        takePoints,
        "Go on past the last jump, to pH 11 or so. Both pKa values come from the whole curve: do not save points on the way.",
      ],
      cautions: electrodeCautions("Goggles on: sodium hydroxide harms the eyes."),
    },
  ],
  protection,
  hazards: [...baseHazards, authority],
  waste: [neutralWaste],
  glassware: [...meterGlass, "weighing boats", "balance reading to 0.1 mg"],
});
