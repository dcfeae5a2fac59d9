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
import { knownConcentration, pipetted } from "../../parts/inputs";
import { about, exactly, mL } from "../../parts/reagents";

/** Chloride by silver nitrate, at a silver electrode. */
export const chlorideBySilver = defineMethod({
  id: "chloride-by-silver",
  version: 1,
  family: "precipitation",
  title: "Chloride by silver nitrate, with a silver electrode",
  purpose:
    "Find chloride by silver nitrate: the potential of a silver electrode jumps when no chloride is left.",
  equations: [{ name: "precipitation", equation: "Cl^- + Ag^+ -> AgCl" }],
  substances: { "Cl^-": "chloride", "Ag^+": "silver" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownConcentration("c_s", "Concentration of the silver nitrate", "AgNO3", "0.0500", "0.0001"),
        pipetted("the water", "Water taken", "25.00", "V_w"),
        curveInput("AgNO3", "mV", "2"),
      ],
      relations: [
        { relation: "n_c = c_s * V * ratio(Cl^-, Ag^+)", title: "Chloride in the beaker", unit: "mmol" },
        { relation: "c_c = n_c / V_w", title: "Chloride in the water", unit: "mmol/L" },
        { relation: "w_c = c_c * M(Cl)", title: "The same as a mass", unit: "mg/L" },
      ],
      result: { symbol: "c_c", name: "Chloride in the water", unit: "mmol/L" },
      also: [{ symbol: "w_c", name: "The same as a mass", unit: "mg/L" }],
      plausible: [{ rule: "between", symbol: "c_c", from: 0, unit: "mmol/L" }],
      presumed: 30,
      curve: {
        titrant: { symbol: "c_s", usual: 0.05 },
        flaskMl: 100,
        ends: oneEnd,
        until: 430,
        largestMl: 2,
        theory: { is: "silver", pKs: 9.74, referenceV: 0.197 },
      },
      reagents: [
        exactly("the water", mL("25"), "into each beaker", "V_w"),
        about("nitric acid, 1 mol/L", mL("2"), "before the titration"),
        waterFor("75", "free of chloride, to cover the electrodes"),
      ],
      conditions: stirred,
      steps: [
        "Polish the silver electrode; the reference electrode has potassium nitrate, not chloride, in its outer bridge.",
        "[take V_w] of the water into a beaker; 2 mL of nitric acid, about 75 mL of water free of chloride.",
        ...buretteSteps("silver nitrate"),
        takePoints,
        "Wait longer near the jump: the precipitate takes its time. Go on to 430 mV or so.",
      ],
      cautions: electrodeCautions("Goggles and gloves on: silver nitrate stains skin and harms the eyes."),
    },
  ],
  protection,
  hazards: ["Silver nitrate stains and corrodes: gloves; rinse at once with much water.", authority],
  waste: ["Silver chloride and what is left of the silver: to the silver waste, as local rules say."],
  glassware: [...curveGlass, "mV meter", "silver electrode", "reference electrode", "25 mL pipette"],
});
