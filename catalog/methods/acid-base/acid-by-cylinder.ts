import { defineMethod } from "~/core/method";
import {
  acidHazard,
  authority,
  baseHazards,
  fillBelowEyes,
  labelled,
  neutralWaste,
  protection,
} from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { exactly, indicatorReagent, mL } from "../../parts/reagents";
import { knownBase, titer } from "../../parts/inputs";
import { phenolphthalein } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** A first titration: the acid is measured out by cylinder. */
export const acidByCylinder = defineMethod({
  id: "acid-by-cylinder",
  version: 1,
  family: "acid-base",
  title: "First titration: an acid measured out by cylinder",
  purpose:
    "Find the concentration of a strong acid in a first lesson, with a cylinder in place of a pipette.",
  variant: { of: "acid-by-base", differs: "the acid is measured out by cylinder, which rules the ±" },
  equations: [{ name: "neutralization", equation: "HCl + NaOH -> NaCl + H2O" }],
  substances: { HCl: "hydrochloric acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the acid",
      inputs: [
        knownBase,
        {
          symbol: "V_a",
          is: "graduated",
          glass: "cylinder",
          label: "Acid by cylinder",
          of: "HCl",
          per: "trial",
          capacityMl: 25,
          presumed: "20.0",
        },
        titer("NaOH"),
      ],
      relations: [
        { relation: "n_b = c_b * V", title: "Amount of base used", unit: "mmol" },
        { relation: "n_a = n_b * ratio(HCl, NaOH)", title: "Amount of acid in the flask", unit: "mmol" },
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
      expectMl: [12, 35],
      ...phenolphthalein,
      reagents: [exactly("the acid", mL("20.0"), "into each flask"), indicatorReagent],
      steps: [
        "Type the concentration of the base from its label.",
        "Measure 20.0 mL of the acid in a cylinder at eye level; pour it into a flask and rinse the cylinder into it.",
        "Add 2 to 3 drops of phenolphthalein.",
        ...buretteSteps("base"),
      ],
      cautions: ["Goggles on: acid and base both harm the eyes.", fillBelowEyes, labelled],
    },
  ],
  protection,
  hazards: [...baseHazards, acidHazard, authority],
  waste: [neutralWaste],
  glassware: ["50 mL burette", "25 mL measuring cylinder", "250 mL conical flasks"],
});
