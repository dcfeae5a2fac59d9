import { defineMethod, type PreparationStage } from "~/core/method";
import type { Input } from "~/core/inputs";
import { acidHazard, authority, labelled, neutralWaste, noMouth, protection } from "../../parts/safety";
import { exactly, inWords, mL } from "../../parts/reagents";
import { flaskOnce, fromStage, knownConcentration } from "../../parts/inputs";

interface Level {
  readonly key: string;
  readonly title: string;
  readonly from: Input;
  readonly symbol: string;
  readonly taken: string;
}

/** One level: an aliquot of the level before, made up to the mark. */
function level({ key, title, from, symbol, taken }: Level): PreparationStage {
  return {
    kind: "preparation",
    key,
    title,
    inputs: [
      from,
      {
        symbol: "V_1",
        is: "pipette",
        label: "Taken of the level before",
        of: "HCl",
        per: "run",
        presumed: taken,
      },
      flaskOnce("HCl", "250.0", "V_2", "Made up to"),
    ],
    relations: [
      { relation: "n = c_0 * V_1", title: "Amount taken", unit: "mmol" },
      { relation: `${symbol} = n / V_2`, title: "Concentration made", unit: "mol/L" },
    ],
    result: { symbol, name: "Concentration made", unit: "mol/L", assigns: "HCl", equivalents: 1 },
    plausible: [{ rule: "not above", symbol, other: "c_0" }],
    reagents: [
      exactly("the level before", inWords(`${taken} mL in 250.0 mL`, mL(taken)), "by pipette into the flask"),
    ],
    steps: [
      `Pipette ${taken} mL of the level before into a 250 mL flask that holds some water.`,
      "Make up to the mark, stopper, invert twenty times, label it with its concentration.",
    ],
    cautions: ["Goggles on.", "Acid into water, never water into acid.", noMouth, labelled],
  };
}

/** Standard solutions of several levels, each made from the one before. */
export const dilutionInSteps = defineMethod({
  id: "dilution-in-steps",
  version: 1,
  family: "acid-base",
  title: "Standard solutions by diluting in steps",
  purpose:
    "Make solutions of three levels, each from the one before, with the ± that adds up from step to step.",
  equations: [{ name: "neutralization", equation: "HCl + NaOH -> NaCl + H2O" }],
  substances: { HCl: "hydrochloric acid", NaOH: "sodium hydroxide" },
  stages: [
    level({
      key: "first",
      title: "First level",
      from: knownConcentration("c_0", "Concentration of the stock", "HCl", "1.000", "0.002"),
      symbol: "c_1",
      taken: "25.00",
    }),
    level({
      key: "second",
      title: "Second level",
      from: fromStage("c_0", "First level", "HCl", "first"),
      symbol: "c_2",
      taken: "50.00",
    }),
    level({
      key: "third",
      title: "Third level",
      from: fromStage("c_0", "Second level", "HCl", "second"),
      symbol: "c_3",
      taken: "25.00",
    }),
  ],
  protection,
  hazards: [acidHazard, authority],
  waste: [neutralWaste],
  glassware: ["25 mL and 50 mL one-mark pipettes and filler", "three 250 mL volumetric flasks", "labels"],
});
