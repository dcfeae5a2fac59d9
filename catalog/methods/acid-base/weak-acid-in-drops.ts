import { defineMethod } from "~/core/method";
import { authority, baseHazards, fillBelowEyes, neutralWaste, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { about, drops, exactly, indicatorReagent, mL } from "../../parts/reagents";
import { knownBase, titer } from "../../parts/inputs";
import { phenolphthalein } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** A strong sample of which a few drops are enough: counted, and not diluted. */
export const weakAcidInDrops = defineMethod({
  id: "weak-acid-in-drops",
  version: 1,
  family: "acid-base",
  title: "Acetic acid in a pickling liquor, counted in drops",
  purpose: "Find how strong a vinegar or pickling liquor is from a stated number of drops.",
  variant: {
    of: "weak-acid-in-food",
    differs: "a few drops are counted into each flask; nothing is diluted",
  },
  equations: [{ name: "neutralization", equation: "CH3COOH + NaOH -> CH3COONa + H2O" }],
  substances: { CH3COOH: "acetic acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the drops",
      inputs: [
        knownBase,
        {
          symbol: "V_a",
          is: "drops",
          label: "Drops of the liquor",
          of: "the liquor",
          per: "trial",
          perMl: { value: "20", plusMinus: "1" },
          presumedMl: "2.50",
        },
        titer("NaOH"),
      ],
      relations: [
        { relation: "n = c_b * V * ratio(CH3COOH, NaOH)", title: "Acid in the drops", unit: "mmol" },
        { relation: "c = n / V_a", title: "Concentration in the liquor", unit: "mol/L" },
        { relation: "γ = c * M(CH3COOH)", title: "Mass in a volume", unit: "% w/v" },
      ],
      result: { symbol: "c", name: "Acetic acid in the liquor", unit: "mol/L" },
      also: [{ symbol: "γ", name: "Acetic acid, mass in a volume", unit: "% w/v" }],
      plausible: [atMost("c", mostMolPerL.CH3COOH)],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 0.85,
      expectMl: [12, 35],
      ...phenolphthalein,
      reagents: [
        exactly("the liquor", drops("50"), "counted into each flask"),
        about("water", mL("50"), "into each flask, to thin its color"),
        indicatorReagent,
      ],
      steps: [
        "Count the drops of one milliliter from the same dropper first: its drops are not those of another.",
        "Let 50 drops fall into a flask, the dropper upright; add water and phenolphthalein.",
        ...buretteSteps("base"),
      ],
      cautions: ["Goggles on: sodium hydroxide harms the eyes.", fillBelowEyes],
    },
  ],
  protection,
  hazards: [...baseHazards, authority],
  waste: [neutralWaste],
  glassware: ["50 mL burette", "dropper", "10 mL measuring cylinder", "250 mL conical flasks"],
});
