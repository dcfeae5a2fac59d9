import { about, drops, exactly, mL } from "../../parts/reagents";
import { defineMethod } from "~/core/method";
import { acidByCarbonateStage } from "./acid-by-carbonate-then-base";
import { authority, fillBelowEyes, labelled, neutralWaste, noMouth, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { flaskOnce, fromStage, pipetted, titer } from "../../parts/inputs";
import { ribbons } from "../../parts/indicators";
import { notNegative } from "../../parts/plausible";

/** Alkalinity of a water with acid, which sodium carbonate has fixed first. */
export const alkalinityOfWater = defineMethod({
  id: "alkalinity-of-water",
  version: 5,
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
      kind: "preparation",
      key: "dilute",
      title: "Dilute the acid",
      inputs: [
        fromStage("c_a", "Concentration of the acid", "HCl", "standardize"),
        { symbol: "V_s", is: "pipette", label: "Acid taken", of: "HCl", per: "run", presumed: "50.00" },
        flaskOnce("HCl"),
      ],
      relations: [
        { relation: "c_d = c_a * V_s / V_f", title: "Concentration of the diluted acid", unit: "mol/L" },
      ],
      result: {
        symbol: "c_d",
        name: "Concentration of the diluted acid",
        unit: "mol/L",
        assigns: "HCl",
        equivalents: 1,
      },
      plausible: [{ rule: "not above", symbol: "c_d", other: "c_a" }],
      reagents: [exactly("the standardized acid", mL("50.00"), "into the 250 mL flask")],
      steps: [
        "A natural water takes little acid: dilute what was standardized, so that a titer is large enough to be read well.",
        "Pipette 50.00 mL of the acid into a 250 mL flask that is half full of water, make up to the mark, stopper and invert twenty times; label it.",
      ],
      cautions: ["Goggles on.", "Acid into water, never water into acid.", labelled],
    },
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the water",
      inputs: [
        fromStage("c_d", "Concentration of the diluted acid", "HCl", "dilute"),
        pipetted("the water", "Water taken", "100.00", "V_w"),
        titer("HCl"),
      ],
      relations: [
        { relation: "n_a = c_d * V", title: "Acid taken up by the sample", unit: "mmol" },
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
      expectMl: [5, 45],
      indicator: "bromocresol green with methyl red, 3 drops",
      persistence: "The salmon color must stay on swirling; gray is nearly there.",
      meniscus: "bottom",
      ribbon: ribbons.blueGreenToSalmon,
      reagents: [
        exactly("the water", mL("100.00"), "into each flask", "V_w"),
        about("bromocresol green with methyl red", drops("3"), "before the titration"),
      ],
      steps: [
        "Fill the sample bottle to the brim and keep it shut until it is used.",
        "[take V_w] of the water into a flask; add 3 drops of the indicator.",
        ...buretteSteps("diluted acid"),
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
    "50 and 100 mL one-mark pipettes and filler",
    "250 mL volumetric flask",
    "250 mL conical flasks",
    "weighing boats",
    "balance reading to 0.1 mg",
    "hot plate",
  ],
});
