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

/** A weak acid followed with a pH meter: equivalent mass, protons and pKa from the whole curve. */
export const weakAcidByPhMeter = defineMethod({
  id: "weak-acid-by-ph-meter",
  version: 4,
  family: "acid-base",
  title: "Weak acid with a pH meter: equivalent mass and pKa",
  purpose:
    "Follow the pH of a weak acid while base is added, point by point: where it jumps is the equivalence point, and the whole curve tells pKa and how many protons the jump stands for.",
  equations: [{ name: "neutralization", equation: "HC8H7O3 + NaOH -> NaC8H7O3 + H2O" }],
  substances: { HC8H7O3: "mandelic acid, as an example", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownBase,
        weighedSolid("the acid", "Mass of acid", [0.2, 0.5]),
        calibratedMeter,
        curveInput("NaOH", "pH", "0.03"),
      ],
      relations: [
        { relation: "n_b = c_b * V", title: "Base to the equivalence point", unit: "mmol" },
        { relation: "M_e = m / n_b", title: "Equivalent mass: of one mole of protons", unit: "g/mol" },
        { relation: "M_a = z * M_e", title: "Molar mass", unit: "g/mol" },
      ],
      result: { symbol: "M_e", name: "Equivalent mass of the acid", unit: "g/mol" },
      also: [
        { symbol: "z", name: "Protons up to the last jump", unit: "1" },
        { symbol: "M_a", name: "Molar mass of the acid", unit: "g/mol" },
        { symbol: "pK_1", name: "pKa of the acid", unit: "1" },
      ],
      plausible: [
        { rule: "between", symbol: "M_e", from: 40, unit: "g/mol" },
        { rule: "between", symbol: "pK_1", from: 0, to: 14, unit: "1" },
      ],
      presumed: 152,
      curve: {
        titrant: { symbol: "c_b", usual: 0.1 },
        flaskMl: 100,
        ends: oneEnd,
        constants: ["pK_1"],
        protons: "z",
        until: 11,
        largestMl: 2,
        theory: { is: "acid", pKas: [3.41] },
      },
      reagents: [
        exactly("the acid, dry", g("0.2", "0.5"), "weighed into each beaker", "m"),
        waterFor("100", "to dissolve it and cover the electrode"),
      ],
      conditions: stirred,
      steps: [
        calibrateMeter,
        "Weigh 0.2 to 0.5 g of the acid by difference into a beaker; dissolve it in about 100 mL of water; the stirrer clear of the electrode.",
        ...buretteSteps("base"),
        takePoints,
        "Go on past the jump, to pH 11 or so.",
      ],
      cautions: electrodeCautions("Goggles on: sodium hydroxide harms the eyes."),
    },
  ],
  protection,
  hazards: [...baseHazards, authority],
  waste: [neutralWaste],
  glassware: [...meterGlass, "weighing boats", "balance reading to 0.1 mg"],
});
