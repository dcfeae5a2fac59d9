import { defineMethod } from "~/core/method";
import { acidHazard, authority, baseHazards, neutralWaste, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import {
  calibratedMeter,
  calibrateMeter,
  curveInput,
  electrodeCautions,
  meterGlass,
  stirred,
  takePoints,
  waterFor,
} from "../../parts/curves";
import { knownConcentration, pipetted } from "../../parts/inputs";
import { exactly, mL } from "../../parts/reagents";

/** Carbonate in a base that has stood in air: Gran's lines before and beyond the jump meet the axis at two places. */
export const carbonateInBaseByGran = defineMethod({
  id: "carbonate-in-base-by-gran",
  version: 1,
  family: "acid-base",
  title: "Carbonate in a base, by Gran’s lines",
  purpose:
    "Find how much of a sodium hydroxide solution has become carbonate: before the jump each carbonate takes two protons, beyond it none.",
  equations: [
    { name: "hydroxide", equation: "NaOH + HCl -> NaCl + H2O" },
    { name: "carbonate", equation: "Na2CO3 + 2 HCl -> 2 NaCl + CO2 + H2O" },
  ],
  substances: { NaOH: "sodium hydroxide", Na2CO3: "sodium carbonate", HCl: "hydrochloric acid" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownConcentration("c_a", "Concentration of the acid", "HCl", "0.1000", "0.0002"),
        pipetted("the acid", "Acid taken", "25.00"),
        calibratedMeter,
        curveInput("NaOH", "pH", "0.03"),
      ],
      relations: [
        { relation: "n_a = c_a * V_a", title: "Acid in the beaker", unit: "mmol" },
        { relation: "c_h = n_a / V_y", title: "Hydroxide in the base", unit: "mol/L" },
        { relation: "c_c = (n_a / V_x - c_h) / 2", title: "Carbonate in the base", unit: "mmol/L" },
        { relation: "p = 2 * c_c / (c_h + 2 * c_c)", title: "Part of the base that is carbonate", unit: "%" },
      ],
      result: { symbol: "c_c", name: "Carbonate in the base", unit: "mmol/L" },
      also: [
        { symbol: "c_h", name: "Hydroxide in the base", unit: "mol/L" },
        { symbol: "p", name: "Part of the base that is carbonate", unit: "%" },
      ],
      plausible: [{ rule: "between", symbol: "c_c", from: 0, unit: "mmol/L" }],
      presumed: 2,
      curve: {
        titrant: { usual: 0.1 },
        flaskMl: 125,
        ends: [
          { symbol: "V_x", name: "Gran’s line before the jump", at: "first", way: "gran before", part: 0.96 },
          { symbol: "V_y", name: "Gran’s line beyond the jump", at: "last", way: "gran beyond", part: 1 },
        ],
        strong: true,
        until: 11.9,
        largestMl: 1,
        theory: { is: "carbonated base" },
      },
      reagents: [
        exactly("the acid", mL("25"), "into each beaker", "V_a"),
        waterFor("100", "boiled and cooled, to cover the electrode"),
      ],
      conditions: stirred,
      steps: [
        calibrateMeter,
        "[take V_a] of the acid into a beaker; about 100 mL of water that was boiled and cooled.",
        ...buretteSteps("base"),
        takePoints,
        "Even steps of 1 to 2 mL will do: the lines need points away from the jump, ten on each side. Go on to half as much again.",
      ],
      cautions: electrodeCautions("Goggles on: sodium hydroxide harms the eyes."),
    },
  ],
  protection,
  hazards: [...baseHazards, acidHazard, authority],
  waste: [neutralWaste],
  glassware: [...meterGlass, "25 mL pipette"],
});
