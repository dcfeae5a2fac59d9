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
import { knownConcentration, pipetted, titer } from "../../parts/inputs";
import { phenolphthaleinGone } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** The acid stands in the burette. */
export const baseByAcid = defineMethod({
  id: "base-by-acid",
  version: 6,
  family: "acid-base",
  title: "Base by a known acid, the acid in the burette",
  purpose: "Find the concentration of a base with an acid from the shelf.",
  variant: { of: "acid-by-base", differs: "the known acid is in the burette: pink until it just disappears" },
  equations: [{ name: "neutralization", equation: "HCl + NaOH -> NaCl + H2O" }],
  substances: { HCl: "hydrochloric acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the base",
      inputs: [
        knownConcentration("c_a", "Concentration of the acid", "HCl", "0.1000", "0.0002"),
        pipetted("NaOH", "Aliquot of base", "25.00", "V_b"),
        titer("HCl"),
      ],
      relations: [
        { relation: "n_a = c_a * V", title: "Amount of acid used", unit: "mmol" },
        { relation: "n_b = n_a * ratio(NaOH, HCl)", title: "Amount of base in the aliquot", unit: "mmol" },
        { relation: "c_b = n_b / V_b", title: "Concentration of the base", unit: "mol/L" },
      ],
      result: {
        symbol: "c_b",
        name: "Concentration of the base",
        unit: "mol/L",
        assigns: "NaOH",
        equivalents: 1,
      },
      plausible: [atMost("c_b", mostMolPerL.NaOH)],
      agree: { on: "V / V_b", per: "V_b" },
      expectMl: [15, 40],
      ...phenolphthaleinGone,
      reagents: [exactly("the base", mL("25.00"), "into each flask", "V_b"), indicatorReagent],
      steps: [
        "Type the concentration of the acid and its ± from its label.",
        "[take V_b] of the base into a flask; add 2 drops of phenolphthalein.",
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
