import { defineMethod } from "~/core/method";
import { acidHazard, authority, neutralWaste, protection } from "../../parts/safety";
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

/** Carbonate and hydrogen carbonate beside each other, by the two jumps of one curve. */
export const carbonateMixtureByCurve = defineMethod({
  id: "carbonate-mixture-by-curve",
  version: 1,
  family: "acid-base",
  title: "Carbonate mixture, by two jumps",
  purpose:
    "Find carbonate and hydrogen carbonate in one solution: to the first jump carbonate takes one proton, to the last everything is carbonic acid.",
  equations: [
    { name: "to the first jump", equation: "Na2CO3 + HCl -> NaHCO3 + NaCl" },
    { name: "to the last jump", equation: "NaHCO3 + HCl -> NaCl + CO2 + H2O" },
  ],
  substances: { Na2CO3: "sodium carbonate", NaHCO3: "sodium hydrogen carbonate", HCl: "hydrochloric acid" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownConcentration("c_a", "Concentration of the acid", "HCl", "0.1000", "0.0002"),
        pipetted("the mixture", "Mixture taken", "25.00", "V_s"),
        calibratedMeter,
        curveInput("HCl", "pH", "0.03"),
      ],
      relations: [
        { relation: "c_c = c_a * V_1 / V_s", title: "Carbonate", unit: "mol/L" },
        {
          relation: "c_h = c_a * (V_2 - 2 * V_1) / V_s",
          title: "Hydrogen carbonate, beside what carbonate became",
          unit: "mol/L",
        },
      ],
      result: { symbol: "c_c", name: "Carbonate in the mixture", unit: "mol/L" },
      also: [{ symbol: "c_h", name: "Hydrogen carbonate in the mixture", unit: "mol/L" }],
      plausible: [{ rule: "between", symbol: "c_h", from: 0, unit: "mol/L" }],
      presumed: 0.04,
      curve: {
        titrant: { symbol: "c_a", usual: 0.1 },
        flaskMl: 75,
        ends: twoEnds(0.38),
        until: 3,
        largestMl: 1.5,
        theory: { is: "carbonates" },
      },
      reagents: [
        exactly("the mixture", mL("25"), "into each beaker", "V_s"),
        waterFor("50", "boiled and cooled, to cover the electrode"),
      ],
      conditions: stirred,
      steps: [
        calibrateMeter,
        "[take V_s] of the mixture into a beaker; about 50 mL of water that was boiled and cooled.",
        ...buretteSteps("acid"),
        takePoints,
        "Stir gently: carbon dioxide that leaves the beaker before the last jump blurs it. Go on to pH 3 or so.",
      ],
      cautions: electrodeCautions("Goggles on: acid."),
    },
  ],
  protection,
  hazards: [acidHazard, authority],
  waste: [neutralWaste],
  glassware: [...meterGlass, "25 mL pipette"],
});
