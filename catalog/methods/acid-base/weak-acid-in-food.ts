import { defineMethod } from "~/core/method";
import { aliquotGlassware } from "../../parts/glassware";
import { authority, baseHazards, neutralWaste, noMouth, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { about, exactly, indicatorReagent, mL, inWords } from "../../parts/reagents";
import { knownBase, pipetted, titer } from "../../parts/inputs";
import { phenolphthalein } from "../../parts/indicators";
import { atMost, atMostAll, mostMolPerL } from "../../parts/plausible";

/** A weak acid in a food or drink, diluted first so that its color does not hide the end. */
export const weakAcidInFood = defineMethod({
  id: "weak-acid-in-food",
  version: 4,
  family: "acid-base",
  title: "Acetic acid in a pickling liquor",
  purpose: "Find how strong a vinegar or pickling liquor is, in percent, after a dilution.",
  equations: [{ name: "neutralization", equation: "CH3COOH + NaOH -> CH3COONa + H2O" }],
  substances: { CH3COOH: "acetic acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the liquor",
      inputs: [
        knownBase,
        {
          symbol: "V_1",
          is: "pipette",
          label: "Liquor taken",
          of: "the liquor",
          per: "run",
          presumed: "25.00",
        },
        { symbol: "V_2", is: "flask", label: "Made up to", of: "the liquor", per: "run", presumed: "250.0" },
        {
          symbol: "ρ",
          is: "given",
          label: "Density of the liquor",
          per: "run",
          unit: "g/mL",
          presumed: { value: "1.006", plusMinus: "0.002" },
        },
        pipetted("the diluted liquor", "Aliquot", "25.00"),
        titer("NaOH"),
      ],
      relations: [
        { relation: "n = c_b * V * ratio(CH3COOH, NaOH)", title: "Acid in the aliquot", unit: "mmol" },
        { relation: "c_d = n / V_a", title: "Concentration in the flask", unit: "mol/L" },
        { relation: "c = c_d * V_2 / V_1", title: "Concentration in the liquor", unit: "mol/L" },
        { relation: "γ = c * M(CH3COOH)", title: "Mass in a volume", unit: "% w/v" },
        { relation: "w = γ / ρ", title: "Mass in a mass", unit: "% w/w" },
      ],
      result: { symbol: "c", name: "Acetic acid in the liquor", unit: "mol/L" },
      also: [
        { symbol: "γ", name: "Acetic acid, mass in a volume", unit: "% w/v" },
        { symbol: "w", name: "Acetic acid, mass in a mass", unit: "% w/w" },
      ],
      plausible: [atMost("c", mostMolPerL.CH3COOH), atMostAll("w")],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 0.85,
      expectMl: [15, 30],
      ...phenolphthalein,
      reagents: [
        exactly(
          "the liquor",
          inWords("25.00 mL in 250.0 mL", mL("25.00")),
          "diluted once, for all flasks",
          "V_1",
        ),
        exactly("the diluted liquor", mL("25.00"), "into each flask", "V_a"),
        about("water", mL("50"), "into each flask, to thin its color"),
        indicatorReagent,
      ],
      steps: [
        "[take V_1] of the liquor into a 250 mL flask, make up to the mark, mix, label.",
        "[take V_a] into a flask; add water until its color no longer hides a pink, and phenolphthalein.",
        ...buretteSteps("base"),
      ],
      cautions: [
        "Goggles on: sodium hydroxide harms the eyes.",
        noMouth,
        "Nothing from this bench is food any more: do not taste it.",
      ],
    },
  ],
  protection,
  hazards: [...baseHazards, authority],
  waste: [neutralWaste],
  glassware: ["250 mL volumetric flask", ...aliquotGlassware],
});
