import { about, drops, exactly, mL } from "../../parts/reagents";
import { defineMethod } from "~/core/method";
import { acidByCarbonateStage } from "./acid-by-carbonate-then-base";
import { authority, fillBelowEyes, labelled, neutralWaste, noMouth, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { fromStage, pipetted, titer } from "../../parts/inputs";
import { ribbons } from "../../parts/indicators";
import { notNegative } from "../../parts/plausible";

/** Alkalinity of a water with acid, which sodium carbonate has fixed first. */
export const alkalinityOfWater = defineMethod({
  id: "alkalinity-of-water",
  version: 3,
  family: "acid-base",
  title: "Alkalinity of water, by an acid standardized on carbonate",
  purpose: "How much acid a water can take up before its pH falls to about 4.5.",
  equations: [
    { name: "standardization", equation: "Na2CO3 + 2 HCl -> 2 NaCl + H2O + CO2" },
    { name: "alkalinity", equation: "HCO3- + HCl -> Cl- + H2O + CO2" },
    { name: "as carbonate", equation: "CaCO3 + 2 HCl -> CaCl2 + H2O + CO2" },
  ],
  substances: { Na2CO3: "sodium carbonate", HCl: "hydrochloric acid", CaCO3: "calcium carbonate" },
  stages: [
    acidByCarbonateStage,
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the water",
      inputs: [
        fromStage("c_a", "Concentration of the acid", "HCl", "standardize"),
        pipetted("the water", "Water taken", "100.00", "V_w"),
        titer("HCl"),
      ],
      relations: [
        { relation: "n_a = c_a * V", title: "Acid taken up by the sample", unit: "mmol" },
        { relation: "A = n_a * ratio(HCO3-, HCl) / V_w", title: "Alkalinity", unit: "mmol/L" },
        {
          relation: "A_c = n_a * ratio(CaCO3, HCl) * M(CaCO3) / V_w",
          title: "Alkalinity as calcium carbonate",
          unit: "mg/L",
        },
        { relation: "A_e = A", title: "Alkalinity in equivalents", unit: "meq/L" },
      ],
      result: { symbol: "A", name: "Alkalinity of the water", unit: "mmol/L" },
      also: [
        { symbol: "A_c", name: "As calcium carbonate", unit: "mg/L" },
        { symbol: "A_e", name: "In equivalents", unit: "meq/L" },
      ],
      plausible: [notNegative("A", "mmol/L")],
      agree: { on: "V / V_w", per: "V_w" },
      presumed: 2.3,
      expectMl: [1, 10],
      indicator: "bromocresol green with methyl red, 3 drops",
      persistence: "The salmon color must stay on swirling; gray is nearly there.",
      meniscus: "bottom",
      ribbon: ribbons.blueGreenToSalmon,
      reagents: [
        exactly("the water", mL("100.00"), "into each flask"),
        about("bromocresol green with methyl red", drops("3"), "before the titration"),
      ],
      steps: [
        "Fill the sample bottle to the brim and keep it shut until it is used.",
        "Pipette 100.00 mL of the water into a flask; add 3 drops of the indicator.",
        ...buretteSteps("acid"),
        "Where the water is above pH 8.3, titrate a second flask with phenolphthalein to colorless first: a run of its own.",
      ],
      cautions: ["Goggles on: the acid harms the eyes.", fillBelowEyes, noMouth, labelled],
    },
  ],
  protection,
  hazards: [
    "Hydrochloric acid irritates; if it must be diluted, acid into water, never water into acid.",
    "The indicator holds alcohol: keep it from flames.",
    authority,
  ],
  waste: [neutralWaste],
  glassware: [
    "50 mL burette",
    "100 mL one-mark pipette and filler",
    "250 mL conical flasks",
    "weighing boats",
    "balance reading to 0.1 mg",
    "hot plate",
  ],
});
