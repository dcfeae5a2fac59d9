import { defineMethod } from "~/core/method";
import {
  acidHazard,
  authority,
  baseHazards,
  fillBelowEyes,
  labelled,
  neutralWaste,
  noMouth,
  protection,
} from "../../parts/safety";
import { aliquotGlassware } from "../../parts/glassware";
import { buretteSteps } from "../../parts/burette";
import { exactly, indicatorReagent, mL } from "../../parts/reagents";
import { knownBase, pipetted, titer } from "../../parts/inputs";
import { phenolphthaleinGone } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** The acid that is looked for stands in the burette, the known base in the flask. */
export const acidInBurette = defineMethod({
  id: "acid-in-burette",
  version: 2,
  family: "acid-base",
  title: "Unknown acid in the burette, by a known base in the flask",
  purpose: "Find the concentration of a strong acid that is delivered into aliquots of a known base.",
  variant: {
    of: "acid-by-base",
    differs: "the unknown acid is in the burette: a weaker one gives a larger titer",
  },
  equations: [{ name: "neutralization", equation: "HCl + NaOH -> NaCl + H2O" }],
  substances: { HCl: "hydrochloric acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate with the acid",
      inputs: [knownBase, pipetted("NaOH", "Aliquot of base", "25.00", "V_b"), titer("HCl")],
      relations: [
        { relation: "n_b = c_b * V_b", title: "Amount of base in the aliquot", unit: "mmol" },
        { relation: "n_a = n_b * ratio(HCl, NaOH)", title: "Amount of acid that it takes", unit: "mmol" },
        { relation: "c_a = n_a / V", title: "Concentration of the acid", unit: "mol/L" },
      ],
      result: {
        symbol: "c_a",
        name: "Concentration of the acid",
        unit: "mol/L",
        assigns: "HCl",
        equivalents: 1,
      },
      plausible: [atMost("c_a", mostMolPerL.HCl)],
      agree: { on: "V / V_b", per: "V_b" },
      expectMl: [15, 40],
      ...phenolphthaleinGone,
      reagents: [exactly("the base", mL("25.00"), "into each flask", "V_b"), indicatorReagent],
      steps: [
        "Type the concentration of the base and its ± from its label.",
        "[take V_b] of the base into a flask; add 2 drops of phenolphthalein: it turns pink.",
        ...buretteSteps("acid"),
      ],
      cautions: ["Goggles on: acid and base both harm the eyes.", fillBelowEyes, noMouth, labelled],
    },
  ],
  protection,
  hazards: [...baseHazards, acidHazard, authority],
  waste: [neutralWaste],
  glassware: aliquotGlassware,
});
