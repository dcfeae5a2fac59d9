import { about, drops, exactly, g, mL } from "../../parts/reagents";
import { defineMethod, type TitrationStage } from "~/core/method";
import {
  acidHazard,
  authority,
  fillBelowEyes,
  labelled,
  neutralWaste,
  noMouth,
  protection,
} from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { fromStage, pipetted, purityOf, titer } from "../../parts/inputs";
import { methylOrange, ribbons } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";
import { densityOf } from "../../densities";

/** The stage that fixes an acid on weighed sodium carbonate; alkalinity begins with it too. */
export const acidByCarbonateStage: TitrationStage = {
  kind: "titration",
  key: "standardize",
  title: "Standardize the acid",
  inputs: [
    {
      symbol: "m",
      is: "mass",
      label: "Mass of carbonate",
      of: "Na2CO3",
      per: "trial",
      before: "Boat with solid",
      after: "Boat after transfer",
      expect: [0.11, 0.2],
      ...densityOf("Na2CO3"),
    },
    purityOf("Na2CO3", "Purity of the carbonate", "99.95", "0.05"),
    titer("HCl"),
  ],
  relations: [
    { relation: "n_s = m * P / M(Na2CO3)", title: "Amount of carbonate in the flask", unit: "mmol" },
    { relation: "n_a = n_s * ratio(HCl, Na2CO3)", title: "Amount of acid it takes", unit: "mmol" },
    { relation: "c_a = n_a / V", title: "Concentration of the acid", unit: "mol/L" },
  ],
  result: { symbol: "c_a", name: "Concentration of the acid", unit: "mol/L", assigns: "HCl", equivalents: 1 },
  plausible: [atMost("c_a", mostMolPerL.HCl)],
  agree: { on: "V / m", per: "m" },
  presumed: 0.1,
  expectMl: [20, 40],
  ...methylOrange,
  reagents: [
    exactly("sodium carbonate, dried", g("0.11", "0.20"), "weighed into each flask"),
    about("water", mL("50"), "to dissolve it"),
    about("methyl orange", drops("2"), "before the titration"),
  ],
  conditions: [
    {
      what: "Dry the carbonate and let it cool in a desiccator",
      of: "solid",
      celsius: [250, 300],
      minutes: 60,
    },
    { what: "Boil off carbon dioxide near the end, then cool", minutes: 1 },
  ],
  steps: [
    "Weigh 0.11 to 0.20 g of the dried carbonate by difference into a flask.",
    "Dissolve it in about 50 mL of water; add 2 drops of methyl orange.",
    ...buretteSteps("acid"),
    "Titrate to orange, boil for a minute, cool under the tap: the yellow that comes back is titrated to orange again.",
  ],
  cautions: [
    "Goggles on: the acid harms the eyes, and a flask that boils can bump.",
    fillBelowEyes,
    "Swirl while it fizzes, and let it, before the flask is stoppered or boiled.",
  ],
};

/** Hydrochloric acid on weighed sodium carbonate, then a base with the acid. */
export const acidByCarbonateThenBase = defineMethod({
  id: "acid-by-carbonate-then-base",
  version: 5,
  family: "acid-base",
  title: "Acid by sodium carbonate, then a base by the acid",
  purpose:
    "Fix the concentration of hydrochloric acid against a weighed primary standard, then find that of a base with it.",
  equations: [
    { name: "standardization", equation: "Na2CO3 + 2 HCl -> 2 NaCl + H2O + CO2" },
    { name: "determination", equation: "HCl + NaOH -> NaCl + H2O" },
  ],
  substances: { Na2CO3: "sodium carbonate", HCl: "hydrochloric acid", NaOH: "sodium hydroxide" },
  stages: [
    acidByCarbonateStage,
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the base",
      inputs: [
        fromStage("c_a", "Concentration of the acid", "HCl", "standardize"),
        pipetted("NaOH", "Aliquot of base", "25.00", "V_b"),
        titer("HCl"),
      ],
      relations: [
        { relation: "n_a = c_a * V", title: "Amount of acid used", unit: "mmol" },
        { relation: "n_b = n_a * ratio(NaOH, HCl)", title: "Amount of base in the aliquot", unit: "mmol" },
        { relation: "c_b = n_b / V_b", title: "Concentration of the base", unit: "mol/L" },
      ],
      result: { symbol: "c_b", name: "Concentration of the base", unit: "mol/L" },
      plausible: [atMost("c_b", mostMolPerL.NaOH)],
      agree: { on: "V / V_b", per: "V_b" },
      expectMl: [15, 40],
      indicator: "phenolphthalein, 2 drops",
      persistence: "The pink must just go, and stay away on swirling.",
      meniscus: "bottom",
      ribbon: ribbons.pinkToColorless,
      reagents: [
        exactly("the base", mL("25.00"), "into each flask", "V_b"),
        about("phenolphthalein", drops("2"), "before the titration"),
      ],
      steps: [
        "[take V_b] of the base into a flask; rinse the walls down with water.",
        "Add 2 drops of phenolphthalein.",
        ...buretteSteps("acid"),
      ],
      cautions: ["Goggles on: acid and base both harm the eyes.", noMouth, labelled],
    },
  ],
  protection,
  hazards: [
    "Sodium hydroxide solution is corrosive: rinse skin or eyes at once with much water.",
    acidHazard,
    authority,
  ],
  waste: [neutralWaste],
  glassware: [
    "50 mL burette",
    "25 mL one-mark pipette and filler",
    "250 mL conical flasks",
    "weighing boats",
    "balance reading to 0.1 mg",
    "hot plate",
  ],
});
