import { defineMethod } from "~/core/method";
import { authority, baseHazards, neutralWaste, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import {
  calibratedMeter,
  calibrateMeter,
  curveInput,
  electrodeCautions,
  meterGlass,
  stirred,
  takePoints,
  twoEnds,
  waterFor,
} from "../../parts/curves";
import { knownConcentration, pipetted } from "../../parts/inputs";
import { exactly, mL } from "../../parts/reagents";

/** An acid with three protons, of which two show: phosphoric acid beside other acids, by the distance of its jumps. */
export const phosphoricAcidInADrink = defineMethod({
  id: "phosphoric-acid-in-a-drink",
  version: 1,
  family: "acid-base",
  title: "Phosphoric acid in a drink, by its two jumps",
  purpose:
    "Find the phosphoric acid of a drink by the base between its first and second equivalence points: carbonic acid that is left, and stronger acids, count before the first.",
  equations: [
    { name: "first proton", equation: "H3PO4 + NaOH -> NaH2PO4 + H2O" },
    { name: "second proton", equation: "NaH2PO4 + NaOH -> Na2HPO4 + H2O" },
  ],
  substances: { H3PO4: "phosphoric acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownConcentration("c_b", "Concentration of the base", "NaOH", "0.02000", "0.00005"),
        pipetted("the drink", "Drink taken", "50.00"),
        calibratedMeter,
        curveInput("NaOH", "pH", "0.03"),
      ],
      relations: [
        {
          relation: "n_p = c_b * (V_2 - V_1)",
          title: "Base for the second proton: as much as there is phosphoric acid",
          unit: "mmol",
        },
        { relation: "c_p = n_p / V_a", title: "Phosphoric acid", unit: "mmol/L" },
        { relation: "w_p = c_p * M(H3PO4)", title: "The same as a mass", unit: "mg/L" },
      ],
      result: { symbol: "c_p", name: "Phosphoric acid in the drink", unit: "mmol/L" },
      also: [
        { symbol: "w_p", name: "The same as a mass", unit: "mg/L" },
        { symbol: "pK_1", name: "First pKa", unit: "1" },
        { symbol: "pK_2", name: "Second pKa", unit: "1" },
      ],
      plausible: [{ rule: "between", symbol: "c_p", from: 0, unit: "mmol/L" }],
      presumed: 5,
      curve: {
        titrant: { symbol: "c_b", usual: 0.02 },
        flaskMl: 100,
        ends: twoEnds(0.5),
        constants: ["pK_1", "pK_2"],
        until: 10.2,
        largestMl: 2,
        theory: { is: "acid", pKas: [2.148, 7.199] },
      },
      reagents: [
        exactly("the drink, without its gas", mL("50"), "into each beaker", "V_a"),
        waterFor("50", "to cover the electrode"),
      ],
      conditions: stirred,
      steps: [
        "Drive the carbon dioxide out of the drink: boil it gently for ten minutes under a watch glass, let it cool, make up what was lost.",
        calibrateMeter,
        "[take V_a] of the drink into a beaker; about 50 mL of water.",
        ...buretteSteps("base"),
        takePoints,
        "Two jumps: go on past the second, to pH 10.2 or so. The third proton shows none.",
      ],
      cautions: electrodeCautions("Goggles on: sodium hydroxide harms the eyes."),
    },
  ],
  protection,
  hazards: [...baseHazards, "Hot liquid may bump over: stir it while it boils.", authority],
  waste: [neutralWaste],
  glassware: [...meterGlass, "50 mL pipette", "hot plate"],
});
