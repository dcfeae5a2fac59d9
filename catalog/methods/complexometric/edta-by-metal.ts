import { defineMethod } from "~/core/method";
import { ammoniaHazard, authority, protection } from "../../parts/safety";
import { binding, edtaSubstances } from "../../parts/equations";
import { edtaGlassware } from "../../parts/glassware";
import { edtaStages } from "./edta-stages";

export const calciumStandard = edtaStages({
  formula: "CaCO3",
  name: "calcium carbonate",
  species: "CaCO3",
  grams: [0.24, 0.27],
  purity: ["99.95", "0.05"],
  dissolve:
    "Weigh the dried carbonate by difference into a beaker, wet it with water, dissolve it in a little hydrochloric acid, boil off the carbon dioxide, cool.",
});

/** Calcium carbonate goes to EDTA by way of the calcium that the acid frees. */
export const calciumEquations = [
  { name: "dissolving", equation: "CaCO3 + 2 H+ -> Ca^2+ + CO2 + H2O" },
  binding("Ca", "calcium binds EDTA"),
];

export const edtaByZinc = defineMethod({
  id: "edta-by-zinc",
  version: 5,
  family: "complexometric",
  title: "EDTA by zinc",
  purpose: "Fix the concentration of an EDTA solution against weighed zinc metal.",
  variant: {
    of: "edta-by-calcium-carbonate",
    differs: "zinc metal dissolved in acid instead of calcium carbonate",
  },
  equations: [{ name: "dissolving", equation: "Zn + 2 H+ -> Zn^2+ + H2" }, binding("Zn", "zinc binds EDTA")],
  substances: { Zn: "zinc", ...edtaSubstances },
  stages: [
    ...edtaStages({
      formula: "Zn",
      name: "zinc",
      species: "Zn",
      grams: [0.155, 0.175],
      purity: ["99.99", "0.01"],
      dissolve:
        "Wash the zinc with dilute acid, water and acetone, dry it; weigh it by difference into a beaker and dissolve it in a little hydrochloric acid, covered.",
    }),
  ],
  protection: [...protection, "Fume hood for the buffer"],
  hazards: [
    "Zinc in acid gives hydrogen: no flame near it.",
    ammoniaHazard,
    "Hydrochloric acid is corrosive: acid into water, never water into acid.",
    authority,
  ],
  waste: ["Flasks hold zinc: to the heavy-metal waste."],
  glassware: edtaGlassware,
});
