import { about, drops, exactly, g, mL, roughly } from "../../parts/reagents";
import { defineMethod } from "~/core/method";
import { authority, fillBelowEyes, neutralWaste, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { methylOrange } from "../../parts/indicators";
import { purityOf, titer } from "../../parts/inputs";
import { atMost, mostMolPerL } from "../../parts/plausible";
import { densityOf } from "../../densities";

/** Sulfuric acid on weighed sodium hydrogen carbonate, two moles of salt for one of acid. */
export const acidByHydrogenCarbonate = defineMethod({
  id: "acid-by-hydrogen-carbonate",
  version: 4,
  family: "acid-base",
  title: "Sulfuric acid by sodium hydrogen carbonate",
  purpose: "Find the concentration of dilute sulfuric acid with a salt from the kitchen shelf.",
  equations: [{ name: "reaction", equation: "2 NaHCO3 + H2SO4 -> Na2SO4 + 2 H2O + 2 CO2" }],
  substances: { NaHCO3: "sodium hydrogen carbonate", H2SO4: "sulfuric acid" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the salt with the acid",
      inputs: [
        {
          symbol: "m",
          is: "mass",
          label: "Mass of hydrogen carbonate",
          of: "NaHCO3",
          per: "trial",
          before: "Boat with solid",
          after: "Boat after transfer",
          expect: [0.8, 1.2],
          ...densityOf("NaHCO3"),
        },
        purityOf("NaHCO3", "Purity of the hydrogen carbonate", "99.5", "0.5"),
        titer("H2SO4"),
      ],
      relations: [
        { relation: "n_s = m * P / M(NaHCO3)", title: "Amount of salt in the flask", unit: "mmol" },
        { relation: "n_a = n_s * ratio(H2SO4, NaHCO3)", title: "Amount of acid it takes", unit: "mmol" },
        { relation: "c_a = n_a / V", title: "Concentration of the acid", unit: "mol/L" },
        { relation: "N_a = c_a * equivalents(H2SO4)", title: "The same in equivalents", unit: "N" },
      ],
      result: {
        symbol: "c_a",
        name: "Concentration of the acid",
        unit: "mol/L",
        assigns: "H2SO4",
        equivalents: 2,
      },
      also: [{ symbol: "N_a", name: "Normality of the acid", unit: "N" }],
      plausible: [atMost("c_a", mostMolPerL.H2SO4)],
      agree: { on: "V / m", per: "m" },
      presumed: 0.25,
      expectMl: [20, 30],
      ...methylOrange,
      reagents: [
        exactly("sodium hydrogen carbonate", roughly(g("1")), "weighed into each flask"),
        about("water", mL("100"), "to dissolve it"),
        about("methyl orange", drops("2"), "before the titration"),
      ],
      conditions: [{ what: "Boil off carbon dioxide near the end for best work, then cool", minutes: 1 }],
      steps: [
        "Weigh about 1 g of the salt by difference into a flask.",
        "Dissolve it in about 100 mL of water; add 2 drops of methyl orange.",
        ...buretteSteps("acid"),
      ],
      cautions: [
        "Goggles on: sulfuric acid harms eyes, skin and cloth.",
        fillBelowEyes,
        "It fizzes: add the first milliliters slowly, and swirl.",
      ],
    },
  ],
  protection,
  hazards: [
    "Sulfuric acid is corrosive; if it must be diluted, acid into water, slowly, never water into acid.",
    authority,
  ],
  waste: [neutralWaste],
  glassware: [
    "50 mL burette",
    "250 mL conical flasks",
    "weighing boats",
    "balance",
    "100 mL measuring cylinder",
  ],
});
