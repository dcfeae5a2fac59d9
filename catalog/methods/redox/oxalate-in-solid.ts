import { defineMethod } from "~/core/method";
import {
  authority,
  protection,
  manganeseWaste,
  permanganateHazards,
  redoxCautions,
} from "../../parts/safety";
import { about, exactly, g, mL } from "../../parts/reagents";
import { knownPermanganate, permanganateTiter, weighedSolid } from "../../parts/inputs";
import { permanganateBurette } from "../../parts/burette";
import { permanganateGlassware } from "../../parts/glassware";
import { permanganateOxalate } from "../../parts/equations";
import { selfIndicatingHot } from "../../parts/indicators";
import { atMostAll } from "../../parts/plausible";

/** Oxalate in a solid, hot, with permanganate standardized before. */
export const oxalateInSolid = defineMethod({
  id: "oxalate-in-solid",
  version: 3,
  family: "redox",
  title: "Oxalate in a solid, by permanganate",
  purpose: "The mass fraction of oxalate in a solid.",
  equations: [permanganateOxalate],
  substances: { KMnO4: "potassium permanganate", "C2O4^2-": "oxalate" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the solid, hot",
      inputs: [
        knownPermanganate,
        weighedSolid("the solid", "Mass of the solid", [0.15, 0.4]),
        permanganateTiter,
      ],
      relations: [
        { relation: "n = c_p * V * ratio(C2O4^2-, MnO4-)", title: "Oxalate in the flask", unit: "mmol" },
        { relation: "w = n * M(C2O4^2-) / m", title: "Oxalate in the solid", unit: "% w/w" },
        { relation: "w_s = n * M(Na2C2O4) / m", title: "As sodium oxalate", unit: "% w/w" },
      ],
      result: { symbol: "w", name: "Oxalate in the solid", unit: "% w/w" },
      also: [{ symbol: "w_s", name: "As sodium oxalate", unit: "% w/w" }],
      plausible: [atMostAll("w", "M(C2O4^2-) / M(H2C2O4)", "pure oxalic acid")],
      agree: { on: "V / m", per: "m" },
      presumed: 40,
      expectMl: [12, 36],
      ...selfIndicatingHot,
      reagents: [
        exactly("the solid, dry", g("0.15", "0.40"), "weighed into each flask"),
        about("sulfuric acid, 1 mol/L", mL("75"), "to dissolve it"),
      ],
      conditions: [{ what: "warm from start to end", celsius: [55, 60], strict: true }],
      steps: [
        "Weigh 0.15 to 0.40 g of the solid by difference into a flask; dissolve it in about 75 mL of dilute sulfuric acid.",
        ...permanganateBurette,
        "Heat to 55 to 60 °C and titrate; wait for the first drops to clear; warm it again if it cools.",
      ],
      cautions: [
        "The flask is hot: hold it by the neck with a towel or tongs.",
        "Permanganate too fast, or too little acid: brown oxide, and the flask is lost.",
        ...redoxCautions,
      ],
    },
  ],
  protection: [...protection, "Heat-proof glove or tongs"],
  hazards: [...permanganateHazards, "Oxalates are poisonous: not on the skin, not in the mouth.", authority],
  waste: [manganeseWaste],
  glassware: [
    ...permanganateGlassware,
    "hot plate",
    "thermometer, 0 to 110 °C",
    "weighing boats",
    "balance reading to 0.1 mg",
  ],
});
