import { defineMethod } from "~/core/method";
import { authority, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import {
  curveGlass,
  curveInput,
  electrodeCautions,
  oneEnd,
  stirred,
  takePoints,
  waterFor,
} from "../../parts/curves";
import { knownEdta, pipetted } from "../../parts/inputs";
import { about, exactly, mL } from "../../parts/reagents";

/** Copper by EDTA, followed by the color of its complex: two straight branches that cross at the end. */
export const copperByPhotometricTitration = defineMethod({
  id: "copper-by-photometric-titration",
  version: 1,
  family: "complexometric",
  title: "Copper by EDTA, followed with a photometer",
  purpose:
    "Find copper by EDTA without an indicator: the complex absorbs red light, so that the absorbance rises to the end and stays there.",
  equations: [{ name: "complex", equation: "Cu^2+ + H2C10H12N2O8^2- -> CuC10H12N2O8^2- + 2 H^+" }],
  substances: { "Cu^2+": "copper(II)", "H2C10H12N2O8^2-": "EDTA" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownEdta,
        pipetted("the copper solution", "Solution taken", "25.00", "V_s"),
        curveInput("EDTA", "absorbance", "0.005", "A"),
      ],
      relations: [
        {
          relation: "n_c = c_y * V * ratio(Cu^2+, H2C10H12N2O8^2-)",
          title: "Copper in the beaker",
          unit: "mmol",
        },
        { relation: "c_c = n_c / V_s", title: "Copper in the solution", unit: "mmol/L" },
        { relation: "w_c = c_c * M(Cu)", title: "The same as a mass", unit: "mg/L" },
      ],
      result: { symbol: "c_c", name: "Copper in the solution", unit: "mmol/L" },
      also: [{ symbol: "w_c", name: "The same as a mass", unit: "mg/L" }],
      plausible: [{ rule: "between", symbol: "c_c", from: 0, unit: "mmol/L" }],
      presumed: 20,
      curve: {
        titrant: { symbol: "c_y", usual: 0.05 },
        flaskMl: 100,
        ends: oneEnd,
        largestMl: 1,
        theory: { is: "branches", start: 0.06, end: 0.46, twice: 0.46 },
      },
      reagents: [
        exactly("the copper solution", mL("25"), "into each beaker", "V_s"),
        about("acetate buffer, pH 5", mL("10"), "before the titration"),
        waterFor("65", "to fill the cell or cover the probe"),
      ],
      conditions: stirred,
      steps: [
        "Set the photometer to 745 nm, or the nearest filter; zero it on water.",
        "[take V_s] of the copper solution into a beaker; 10 mL of acetate buffer, about 65 mL of water.",
        ...buretteSteps("EDTA"),
        takePoints,
        "Equal steps: six points on each side of the crossing at least. What was read is corrected for dilution before lines are drawn.",
      ],
      cautions: electrodeCautions("Goggles on: copper salts harm the eyes."),
    },
  ],
  protection,
  hazards: ["Copper salts are harmful if swallowed, and harm water life.", authority],
  waste: ["Titrated beakers hold copper: to the heavy-metal waste, as local rules say."],
  glassware: [...curveGlass, "photometer with a dip probe or a flow cell", "25 mL pipette"],
});
