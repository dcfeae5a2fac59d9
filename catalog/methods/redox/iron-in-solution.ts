import { defineMethod } from "~/core/method";
import {
  authority,
  protection,
  manganeseWaste,
  permanganateHazards,
  redoxCautions,
} from "../../parts/safety";
import { fromStage, pipetted, flaskOnce, permanganateTiter } from "../../parts/inputs";
import { permanganateByIronStage } from "./permanganate-by-iron-stage";
import { about, exactly, mL } from "../../parts/reagents";
import { iron, permanganateIron } from "../../parts/equations";
import { permanganateBurette } from "../../parts/burette";
import { permanganateGlassware } from "../../parts/glassware";
import { selfIndicating } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** Iron in a solution made up to the mark, aliquots titrated; the mass in the whole. */
export const ironInSolution = defineMethod({
  id: "iron-in-solution",
  version: 4,
  family: "redox",
  title: "Iron in a solution, by permanganate",
  purpose: "Standardize the permanganate, then find the mass of iron in a flask made up to the mark.",
  equations: [permanganateIron],
  substances: {
    KMnO4: "potassium permanganate",
    [iron]: "ammonium iron(II) sulfate hexahydrate",
    Fe: "iron",
  },
  stages: [
    permanganateByIronStage,
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the iron",
      inputs: [
        fromStage("c_p", "Concentration of the permanganate", "KMnO4", "standardize"),
        flaskOnce("the iron solution", "250.0", "V_f", "Flask that holds the whole"),
        pipetted("the iron solution", "Aliquot of the iron solution", "25.00"),
        permanganateTiter,
      ],
      relations: [
        { relation: "n_a = c_p * V * ratio(Fe^2+, MnO4-)", title: "Iron in the aliquot", unit: "mmol" },
        { relation: "n_f = n_a * V_f / V_a", title: "Iron in the whole flask", unit: "mmol" },
        { relation: "m_f = n_f * M(Fe)", title: "Mass of iron in the whole", unit: "g" },
        { relation: "c_f = n_a / V_a", title: "Concentration of iron", unit: "mol/L" },
      ],
      result: { symbol: "m_f", name: "Mass of iron in the whole", unit: "g" },
      also: [{ symbol: "c_f", name: "Concentration of iron", unit: "mol/L" }],
      plausible: [atMost("c_f", mostMolPerL.metal)],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 1.3,
      expectMl: [15, 30],
      ...selfIndicating,
      reagents: [
        exactly("the iron solution, made up to the mark", mL("25.00"), "into each flask", "V_a"),
        about("sulfuric acid, 1 mol/L", mL("20"), "before the titration"),
        about("phosphoric acid, 85 %", mL("5"), "before the titration"),
      ],
      steps: [
        "Make the sample up to 250 mL with water that holds a little sulfuric acid; invert to mix.",
        "[take V_a] into a flask; add 20 mL of sulfuric and 5 mL of phosphoric acid.",
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
