import { defineMethod } from "~/core/method";
import { aliquotGlassware } from "../../parts/glassware";
import {
  authority,
  baseHazards,
  fillBelowEyes,
  labelled,
  neutralWaste,
  noMouth,
  protection,
} from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { fromStage, pipetted, purityOf, titer } from "../../parts/inputs";
import { exactly, g, indicatorReagent, mL, inWords } from "../../parts/reagents";
import { phenolphthalein } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";
import { densityOf } from "../../densities";

/** One standard solution of phthalate serves all flasks. */
export const baseByPhthalateSolution = defineMethod({
  id: "base-by-phthalate-solution",
  version: 4,
  family: "acid-base",
  title: "Base by a standard solution of potassium hydrogen phthalate",
  purpose: "Fix the concentration of a sodium hydroxide solution with one weighing for all flasks.",
  variant: { of: "base-by-phthalate-then-acid", differs: "one standard solution, aliquots of it by pipette" },
  equations: [{ name: "standardization", equation: "KHC8H4O4 + NaOH -> KNaC8H4O4 + H2O" }],
  substances: { KHC8H4O4: "potassium hydrogen phthalate", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "preparation",
      key: "prepare",
      title: "Make the standard solution",
      inputs: [
        {
          symbol: "m",
          is: "mass",
          label: "Mass of phthalate",
          of: "KHC8H4O4",
          per: "run",
          before: "Boat with solid",
          after: "Boat after transfer",
          expect: [4.8, 5.4],
          ...densityOf("KHC8H4O4"),
        },
        purityOf("KHC8H4O4", "Purity of the phthalate", "100.00", "0.05"),
        { symbol: "V_f", is: "flask", label: "Flask", of: "KHC8H4O4", per: "run", presumed: "250.0" },
      ],
      relations: [
        { relation: "n_s = m * P / M(KHC8H4O4)", title: "Amount of phthalate in the flask", unit: "mmol" },
        { relation: "c_s = n_s / V_f", title: "Concentration of the standard", unit: "mol/L" },
      ],
      result: { symbol: "c_s", name: "Concentration of the standard", unit: "mol/L" },
      plausible: [atMost("c_s", mostMolPerL.KHC8H4O4)],
      reagents: [
        exactly("potassium hydrogen phthalate, dried", g("4.8", "5.4"), "into the flask"),
        exactly("water, boiled out", inWords("to the mark"), "when all is dissolved"),
      ],
      conditions: [
        {
          what: "Dry the solid and let it cool in a desiccator",
          of: "solid",
          celsius: [110, 120],
          minutes: 120,
        },
      ],
      steps: [
        "Weigh 4.8 to 5.4 g of the dried solid by difference.",
        "Rinse it through a funnel into the 250 mL flask; dissolve it in about 150 mL of warm, boiled-out water.",
        "Let it cool to the room's temperature, make up to the mark, stopper, and invert twenty times.",
        "Label it: substance, concentration, date, initials.",
      ],
      cautions: ["Goggles on.", labelled],
    },
    {
      kind: "titration",
      key: "standardize",
      title: "Standardize the base",
      inputs: [
        fromStage("c_s", "Concentration of the standard", "KHC8H4O4", "prepare"),
        pipetted("KHC8H4O4", "Aliquot of standard", "25.00"),
        titer("NaOH"),
      ],
      relations: [
        { relation: "n_s = c_s * V_a", title: "Amount of phthalate in the aliquot", unit: "mmol" },
        { relation: "n_b = n_s * ratio(NaOH, KHC8H4O4)", title: "Amount of base it takes", unit: "mmol" },
        { relation: "c_b = n_b / V", title: "Concentration of the base", unit: "mol/L" },
      ],
      result: {
        symbol: "c_b",
        name: "Concentration of the base",
        unit: "mol/L",
        assigns: "NaOH",
        equivalents: 1,
      },
      plausible: [atMost("c_b", mostMolPerL.NaOH)],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 0.1,
      expectMl: [20, 30],
      ...phenolphthalein,
      reagents: [exactly("the standard solution", mL("25.00"), "into each flask"), indicatorReagent],
      steps: [
        "Rinse the pipette with the standard; pipette 25.00 mL of it into a flask.",
        "Add 2 to 3 drops of phenolphthalein.",
        ...buretteSteps("base"),
      ],
      cautions: ["Goggles on: sodium hydroxide harms the eyes.", fillBelowEyes, noMouth],
    },
  ],
  protection,
  hazards: [...baseHazards, authority],
  waste: [neutralWaste],
  glassware: ["250 mL volumetric flask", ...aliquotGlassware, "balance reading to 0.1 mg"],
});
