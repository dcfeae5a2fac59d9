import { defineMethod } from "~/core/method";
import {
  authority,
  labelled,
  protection,
  manganeseWaste,
  permanganateHazards,
  redoxCautions,
} from "../../parts/safety";
import { fromStage, pipetted, purityOf, flaskOnce, permanganateTiter, weighedOnce } from "../../parts/inputs";
import { about, exactly, g, mL } from "../../parts/reagents";
import { iron, permanganateIron, weighedStandard } from "../../parts/equations";
import { permanganateBurette } from "../../parts/burette";
import { permanganateGlassware } from "../../parts/glassware";
import { selfIndicating } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** Permanganate against aliquots of an iron(II) solution, made with a little acid so that it does not hydrolyse. */
export const permanganateByIronSolution = defineMethod({
  id: "permanganate-by-iron-solution",
  version: 5,
  family: "redox",
  title: "Permanganate by iron(II), a standard solution",
  purpose: "Fix the concentration of a permanganate solution against aliquots of one iron(II) solution.",
  variant: {
    of: "permanganate-by-iron",
    differs: "the salt is weighed once into a flask, and aliquots of it are titrated",
  },
  equations: [permanganateIron],
  substances: { KMnO4: "potassium permanganate", [iron]: "ammonium iron(II) sulfate hexahydrate" },
  stages: [
    {
      kind: "preparation",
      key: "prepare",
      title: "Make the iron(II) standard",
      inputs: [
        weighedOnce(iron, "Mass of the iron(II) salt", [9.4, 10.2]),
        purityOf(iron, "Purity of the iron(II) salt", "99.5", "0.3"),
        flaskOnce(iron),
      ],
      ...weighedStandard(iron, "c_i", "iron(II)"),
      plausible: [atMost("c_i", mostMolPerL.iron)],
      reagents: [
        exactly("ammonium iron(II) sulfate hexahydrate", g("9.4", "10.2"), "weighed once"),
        about("sulfuric acid, 1 mol/L", mL("50"), "into the flask before the water"),
      ],
      conditions: [{ what: "use it the same day: air oxidizes it", minutes: 480, counts: "within" }],
      steps: [
        "Weigh the salt by difference into a beaker; dissolve it in about 50 mL of 1 mol/L sulfuric acid, else it hydrolyses.",
        "Rinse it into a 250 mL flask, make up to the mark, stopper and invert twenty times; label it.",
      ],
      cautions: ["Goggles on: the acid burns.", labelled],
    },
    {
      kind: "titration",
      key: "standardize",
      title: "Standardize the permanganate",
      inputs: [
        fromStage("c_i", "Concentration of the iron(II)", iron, "prepare"),
        pipetted(iron, "Aliquot of the iron(II)", "25.00"),
        permanganateTiter,
      ],
      relations: [
        { relation: "n_i = c_i * V_a", title: "Iron(II) in the aliquot", unit: "mmol" },
        { relation: "n_p = n_i * ratio(MnO4-, Fe^2+)", title: "Permanganate it takes", unit: "mmol" },
        { relation: "c_p = n_p / V", title: "Concentration of the permanganate", unit: "mol/L" },
      ],
      result: {
        symbol: "c_p",
        name: "Concentration of the permanganate",
        unit: "mol/L",
        assigns: "KMnO4",
        equivalents: 5,
      },
      plausible: [atMost("c_p", mostMolPerL.KMnO4)],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 0.02,
      expectMl: [20, 30],
      ...selfIndicating,
      reagents: [
        exactly("the iron(II) solution", mL("25.00"), "into each flask", "V_a"),
        about("sulfuric acid, 1 mol/L", mL("20"), "before the titration"),
        about("phosphoric acid, 85 %", mL("5"), "before the titration, to take away the yellow of iron(III)"),
      ],
      steps: [
        "[take V_a] of the iron(II) solution into a flask; add 20 mL of sulfuric and 5 mL of phosphoric acid.",
        ...permanganateBurette,
        "Titrate at once to the faintest pink.",
      ],
      cautions: redoxCautions,
    },
  ],
  protection,
  hazards: [...permanganateHazards, "Phosphoric acid is corrosive.", authority],
  waste: [manganeseWaste],
  glassware: [
    ...permanganateGlassware,
    "250 mL volumetric flask",
    "25 mL one-mark pipette and filler",
    "weighing boats",
    "balance reading to 0.1 mg",
  ],
});
