import { defineMethod } from "~/core/method";
import { acidHazard, authority, neutralWaste, protection } from "../../parts/safety";
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
import { knownConcentration, pipetted } from "../../parts/inputs";
import { exactly, mL } from "../../parts/reagents";

/** A weak base by a strong acid: its concentration, and the pKa of its acid. */
export const weakBaseByCurve = defineMethod({
  id: "weak-base-by-curve",
  version: 1,
  family: "acid-base",
  title: "Weak base by its pH curve: ammonia",
  purpose:
    "Find the concentration of a weak base, and the pKa of the acid that it becomes, from the whole curve.",
  equations: [{ name: "neutralization", equation: "NH3 + HCl -> NH4Cl" }],
  substances: { NH3: "ammonia", HCl: "hydrochloric acid" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownConcentration("c_a", "Concentration of the acid", "HCl", "0.1000", "0.0002"),
        pipetted("the base", "Base taken", "25.00", "V_b"),
        calibratedMeter,
        curveInput("HCl", "pH", "0.03"),
      ],
      relations: [
        { relation: "n_b = c_a * V * ratio(NH3, HCl)", title: "Base in the beaker", unit: "mmol" },
        { relation: "c_b = n_b / V_b", title: "Concentration of the base", unit: "mol/L" },
      ],
      result: { symbol: "c_b", name: "Concentration of the base", unit: "mol/L", assigns: "NH3" },
      also: [{ symbol: "pK_1", name: "pKa of its acid", unit: "1" }],
      plausible: [{ rule: "between", symbol: "pK_1", from: 0, to: 14, unit: "1" }],
      presumed: 0.1,
      curve: {
        titrant: { symbol: "c_a", usual: 0.1 },
        flaskMl: 75,
        ends: oneEnd,
        constants: ["pK_1"],
        until: 3,
        largestMl: 2,
        theory: { is: "base", pKas: [9.246] },
      },
      reagents: [
        exactly("the base", mL("25"), "into each beaker", "V_b"),
        waterFor("50", "to cover the electrode"),
      ],
      conditions: stirred,
      steps: [
        calibrateMeter,
        "[take V_b] of the base into a beaker, in the hood; about 50 mL of water. Begin at once: ammonia leaves the solution.",
        ...buretteSteps("acid"),
        takePoints,
        "Go on past the jump, to pH 3 or so.",
      ],
      cautions: electrodeCautions("Goggles on; ammonia in the hood only."),
    },
  ],
  protection,
  hazards: [acidHazard, "Ammonia stings eyes and lungs: hood, and keep the bottle shut.", authority],
  waste: [neutralWaste],
  glassware: [...meterGlass, "25 mL pipette"],
});
