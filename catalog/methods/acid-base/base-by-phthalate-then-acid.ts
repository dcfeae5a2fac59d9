import { defineMethod } from "~/core/method";
import { buretteSteps } from "../../parts/burette";
import { aliquotGlassware } from "../../parts/glassware";
import { phenolphthalein } from "../../parts/indicators";
import { fromStage, pipetted, purityOf, titer, weighedSolid } from "../../parts/inputs";
import { atMost, mostMolPerL } from "../../parts/plausible";
import { about, exactly, g, indicatorReagent, mL } from "../../parts/reagents";
import {
  acidHazard,
  authority,
  baseHazard,
  fillBelowEyes,
  neutralWaste,
  noMouth,
  phenolphthaleinHazard,
  protection,
} from "../../parts/safety";

/** Base standardized against weighed potassium hydrogen phthalate; the base then finds an unknown monoprotic acid. */
export const baseByPhthalateThenAcid = defineMethod({
  id: "base-by-phthalate-then-acid",
  version: 6,
  family: "acid-base",
  title: "Base by potassium hydrogen phthalate, then an acid by the base",
  purpose:
    "Fix the concentration of a sodium hydroxide solution against a weighed primary standard, then find that of an acid with it.",
  equations: [
    { name: "standardization", equation: "KHC8H4O4 + NaOH -> KNaC8H4O4 + H2O" },
    { name: "determination", equation: "HCl + NaOH -> NaCl + H2O" },
  ],
  substances: {
    KHC8H4O4: "potassium hydrogen phthalate",
    NaOH: "sodium hydroxide",
    HCl: "hydrochloric acid",
  },
  stages: [
    {
      kind: "titration",
      key: "standardize",
      title: "Standardize the base",
      inputs: [
        weighedSolid("KHC8H4O4", "Mass of phthalate", [0.4, 0.8]),
        purityOf("KHC8H4O4", "Purity of the phthalate", "100.00", "0.05"),
        titer("NaOH"),
      ],
      relations: [
        { relation: "n_s = m * P / M(KHC8H4O4)", title: "Amount of phthalate in the flask", unit: "mmol" },
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
      agree: { on: "V / m", per: "m" },
      presumed: 0.1,
      ...phenolphthalein,
      expectMl: [19, 40],
      reagents: [
        exactly(
          "potassium hydrogen phthalate, dried at 110 to 120 °C",
          g("0.4", "0.8"),
          "weighed into each flask",
        ),
        about("boiled-out water", mL("50"), "to dissolve it"),
        indicatorReagent,
      ],
      conditions: [
        { what: "dry the phthalate beforehand for an hour or two", of: "solid", celsius: [110, 120] },
      ],
      steps: [
        "Weigh 0.4 to 0.8 g of the dried solid by difference into a flask.",
        "Dissolve it in about 50 mL of boiled-out water; add 2 to 3 drops of phenolphthalein.",
        ...buretteSteps("base"),
      ],
      cautions: ["Goggles on: sodium hydroxide harms the eyes.", fillBelowEyes],
    },
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the acid",
      inputs: [
        fromStage("c_b", "Concentration of the base", "NaOH", "standardize"),
        pipetted("HCl", "Aliquot of acid", "25.00"),
        titer("NaOH"),
      ],
      relations: [
        { relation: "n_b = c_b * V", title: "Amount of base used", unit: "mmol" },
        { relation: "n_a = n_b * ratio(HCl, NaOH)", title: "Amount of acid in the aliquot", unit: "mmol" },
        { relation: "c_a = n_a / V_a", title: "Concentration of the acid", unit: "mol/L" },
      ],
      result: { symbol: "c_a", name: "Concentration of the acid", unit: "mol/L" },
      plausible: [atMost("c_a", mostMolPerL.HCl)],
      agree: { on: "V / V_a", per: "V_a" },
      ...phenolphthalein,
      expectMl: [15, 30],
      reagents: [exactly("the acid", mL("25.00"), "into each flask", "V_a"), indicatorReagent],
      steps: [
        "[take V_a] of the acid into a flask; rinse the walls down with water.",
        "Add 2 to 3 drops of phenolphthalein.",
        ...buretteSteps("base"),
      ],
      cautions: ["Goggles on: acid and base both harm the eyes.", noMouth],
    },
  ],
  protection,
  hazards: [baseHazard, acidHazard, phenolphthaleinHazard, authority],
  waste: [neutralWaste],
  glassware: [...aliquotGlassware, "weighing boats", "balance reading to 0.1 mg"],
});
