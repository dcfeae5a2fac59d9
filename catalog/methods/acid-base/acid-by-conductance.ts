import { defineMethod } from "~/core/method";
import { acidHazard, authority, baseHazards, neutralWaste, protection } from "../../parts/safety";
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
import { knownBase, pipetted } from "../../parts/inputs";
import { exactly, mL } from "../../parts/reagents";

/** A strong acid followed by its conductance: two straight branches that cross at the end. */
export const acidByConductance = defineMethod({
  id: "acid-by-conductance",
  version: 1,
  family: "acid-base",
  title: "Strong acid by its conductance",
  purpose:
    "Find the concentration of a strong acid by the conductance while base is added: it falls as hydrogen ions go, and rises with the base beyond the end.",
  equations: [{ name: "neutralization", equation: "HCl + NaOH -> NaCl + H2O" }],
  substances: { HCl: "hydrochloric acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownBase,
        pipetted("the acid", "Acid taken", "20.00"),
        curveInput("NaOH", "conductance", "0.01", "G"),
      ],
      relations: [
        { relation: "n_a = c_b * V * ratio(HCl, NaOH)", title: "Acid in the beaker", unit: "mmol" },
        { relation: "c_a = n_a / V_a", title: "Concentration of the acid", unit: "mol/L" },
      ],
      result: { symbol: "c_a", name: "Concentration of the acid", unit: "mol/L", assigns: "HCl" },
      plausible: [{ rule: "between", symbol: "c_a", from: 0, unit: "mol/L" }],
      presumed: 0.05,
      curve: {
        titrant: { symbol: "c_b", usual: 0.1 },
        flaskMl: 200,
        ends: oneEnd,
        largestMl: 1,
        theory: { is: "branches", start: 2.13, end: 0.632, twice: 1.87 },
      },
      reagents: [
        exactly("the acid", mL("20"), "into each beaker", "V_a"),
        waterFor("180", "so that the base dilutes it little"),
      ],
      conditions: stirred,
      steps: [
        "Rinse the cell with water and let it stand in the beaker, its plates covered.",
        "[take V_a] of the acid into a beaker; about 180 mL of water.",
        ...buretteSteps("base"),
        takePoints,
        "Equal steps: six points on each side of the crossing at least. What was read is corrected for dilution before lines are drawn.",
      ],
      cautions: electrodeCautions("Goggles on: acid and base."),
    },
  ],
  protection,
  hazards: [...baseHazards, acidHazard, authority],
  waste: [neutralWaste],
  glassware: [...curveGlass, "conductivity meter with cell", "20 mL pipette"],
});
