import { defineMethod } from "~/core/method";
import { authority, baseHazards, fillBelowEyes, neutralWaste, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { about, exactly, g, indicatorReagent, mL } from "../../parts/reagents";
import { knownBase, titer } from "../../parts/inputs";
import { phenolphthalein } from "../../parts/indicators";

/** A solid acid of two protons; how many the indicator sees is a number to be said. */
export const diproticSolidAcid = defineMethod({
  id: "diprotic-solid-acid",
  version: 3,
  family: "acid-base",
  title: "Solid acid of two protons: equivalent and molar mass",
  purpose:
    "Weigh an unknown solid acid, titrate it, and find what one mole of protons and one mole of acid weigh.",
  equations: [{ name: "neutralization", equation: "H2C4H4O6 + 2 NaOH -> Na2C4H4O6 + 2 H2O" }],
  substances: { H2C4H4O6: "tartaric acid, as an example", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the acid",
      inputs: [
        knownBase,
        {
          symbol: "z",
          is: "given",
          label: "Protons titrated at this indicator",
          per: "run",
          unit: "1",
          presumed: { value: "2", plusMinus: "0" },
          exact: true,
        },
        {
          symbol: "m",
          is: "mass",
          label: "Mass of acid",
          of: "the acid",
          per: "trial",
          before: "Boat with solid",
          after: "Boat after transfer",
          expect: [0.12, 0.3],
        },
        titer("NaOH"),
      ],
      relations: [
        { relation: "n_b = c_b * V", title: "Amount of base used", unit: "mmol" },
        { relation: "M_e = m / n_b", title: "Equivalent mass: of one mole of protons", unit: "g/mol" },
        { relation: "M_a = z * M_e", title: "Molar mass", unit: "g/mol" },
      ],
      result: { symbol: "M_e", name: "Equivalent mass of the acid", unit: "g/mol" },
      also: [{ symbol: "M_a", name: "Molar mass of the acid", unit: "g/mol" }],
      // No acid is lighter than formic acid, 46 g/mol; half of oxalic acid is 45.
      plausible: [{ rule: "between", symbol: "M_e", from: 40, unit: "g/mol" }],
      agree: { on: "V / m", per: "m" },
      presumed: 75,
      expectMl: [15, 40],
      ...phenolphthalein,
      reagents: [
        exactly("the solid acid, dry", g("0.12", "0.30"), "weighed into each flask"),
        about("water", mL("50"), "to dissolve it"),
        indicatorReagent,
      ],
      steps: [
        "Weigh 0.12 to 0.30 g of the acid by difference into a flask; dissolve it in about 50 mL of water.",
        "Add 2 to 3 drops of phenolphthalein: at its end both protons of most such acids are gone.",
        ...buretteSteps("base"),
      ],
      cautions: [
        "Goggles on: sodium hydroxide harms the eyes; an unknown solid may irritate.",
        fillBelowEyes,
      ],
    },
  ],
  protection,
  hazards: [...baseHazards, "Treat an unknown acid as an irritant.", authority],
  waste: [neutralWaste],
  glassware: ["50 mL burette", "250 mL conical flasks", "weighing boats", "balance reading to 0.1 mg"],
});
