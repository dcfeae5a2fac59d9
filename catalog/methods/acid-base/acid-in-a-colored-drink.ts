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
import { knownBase, pipetted } from "../../parts/inputs";
import { exactly, mL } from "../../parts/reagents";

/** Acid of a drink whose color hides every indicator: the curve sees the end all the same. */
export const acidInAColoredDrink = defineMethod({
  id: "acid-in-a-colored-drink",
  version: 1,
  family: "acid-base",
  title: "Acid in a colored drink, by its pH curve",
  purpose: "Find the acid of a dark drink, as citric acid, where no indicator could be seen.",
  equations: [{ name: "neutralization", equation: "H3C6H5O7 + 3 NaOH -> Na3C6H5O7 + 3 H2O" }],
  substances: { H3C6H5O7: "citric acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownBase,
        pipetted("the drink", "Drink taken", "20.00"),
        calibratedMeter,
        curveInput("NaOH", "pH", "0.03"),
      ],
      relations: [
        {
          relation: "n_c = c_b * V * ratio(H3C6H5O7, NaOH)",
          title: "Acid in the beaker, as citric acid",
          unit: "mmol",
        },
        {
          relation: "w_c = n_c * M(H3C6H5O7) / V_a",
          title: "Acid in the drink, as citric acid",
          unit: "% w/v",
        },
      ],
      result: { symbol: "w_c", name: "Acid in the drink, as citric acid", unit: "% w/v" },
      plausible: [{ rule: "between", symbol: "w_c", from: 0, to: 20, unit: "% w/v" }],
      presumed: 0.6,
      curve: {
        titrant: { symbol: "c_b", usual: 0.1 },
        flaskMl: 100,
        ends: oneEnd,
        until: 11,
        largestMl: 2,
        theory: { is: "acid", pKas: [3.128, 4.761, 6.396] },
      },
      reagents: [
        exactly("the drink", mL("20"), "into each beaker", "V_a"),
        waterFor("80", "to cover the electrode"),
      ],
      conditions: stirred,
      steps: [
        calibrateMeter,
        "[take V_a] of the drink into a beaker; about 80 mL of water.",
        ...buretteSteps("base"),
        takePoints,
        "All three protons of citric acid come off in one jump: go on past it, to pH 11 or so.",
      ],
      cautions: electrodeCautions("Goggles on: sodium hydroxide harms the eyes."),
    },
  ],
  protection,
  hazards: [...baseHazards, authority],
  waste: [neutralWaste],
  glassware: [...meterGlass, "20 mL pipette"],
});
