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
import { phenolphthalein } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** A strong acid by a base that is known already. */
export const acidByBase = defineMethod({
  id: "acid-by-base",
  version: 6,
  family: "acid-base",
  title: "Strong acid by a known base",
  purpose: "Find the concentration of a strong acid with a base from the shelf.",
  equations: [{ name: "neutralization", equation: "HCl + NaOH -> NaCl + H2O" }],
  substances: { HCl: "hydrochloric acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the acid",
      inputs: [knownBase, pipetted("HCl", "Aliquot of acid", "25.00"), titer("NaOH")],
      relations: [
        { relation: "n_b = c_b * V", title: "Amount of base used", unit: "mmol" },
        { relation: "n_a = n_b * ratio(HCl, NaOH)", title: "Amount of acid in the aliquot", unit: "mmol" },
        { relation: "c_a = n_a / V_a", title: "Concentration of the acid", unit: "mol/L" },
      ],
      result: {
        symbol: "c_a",
        name: "Concentration of the acid",
        unit: "mol/L",
        assigns: "HCl",
        equivalents: 1,
      },
      plausible: [atMost("c_a", mostMolPerL.HCl)],
      agree: { on: "V / V_a", per: "V_a" },
      expectMl: [15, 40],
      ...phenolphthalein,
      reagents: [exactly("the acid", mL("25.00"), "into each flask", "V_a"), indicatorReagent],
      steps: [
        "Type the concentration of the base and its ± from its label.",
        "[take V_a] of the acid into a flask; rinse the walls down with water.",
        "Add 2 to 3 drops of phenolphthalein.",
        ...buretteSteps("base"),
      ],
      cautions: ["Goggles on: acid and base both harm the eyes.", fillBelowEyes, noMouth, labelled],
    },
  ],
  protection,
  hazards: [...baseHazards, acidHazard, authority],
  waste: [neutralWaste],
  glassware: aliquotGlassware,
});
