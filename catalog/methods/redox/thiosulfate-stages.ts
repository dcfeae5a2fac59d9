import { about, atLast, exactly, g, mL } from "../../parts/reagents";
import type { PreparationStage, TitrationStage, Method } from "~/core/method";
import { weighedOnce, purityOf, flaskOnce, fromStage, pipetted, titer } from "../../parts/inputs";
import { weighedStandard } from "../../parts/equations";
import { atMost, mostMolPerL } from "../../parts/plausible";
import { labelled, iodineCautions } from "../../parts/safety";
import { starchToColorless } from "../../parts/indicators";
import { thiosulfateBurette } from "../../parts/burette";

/* Thiosulfate fixed by an oxidant made up to the mark, by way of iodine. */

interface Oxidant {
  readonly formula: string;
  readonly name: string;
  /** Species of the equations that stands for it. */
  readonly species: string;
  readonly grams: [number, number];
  readonly presumedMolPerL: number;
  readonly expectMl: [number, number];
  readonly dry: string;
  readonly acid: ReturnType<typeof about>;
  readonly wait: string | null;
}

export function thiosulfateStages(oxidant: Oxidant): [PreparationStage, TitrationStage] {
  const { formula, name, species, grams, presumedMolPerL, expectMl, dry, acid, wait } = oxidant;
  return [
    {
      kind: "preparation",
      key: "prepare",
      title: `Make the ${name} standard`,
      inputs: [
        weighedOnce(formula, `Mass of ${name}`, grams),
        purityOf(formula, `Purity of the ${name}`, "99.95", "0.05"),
        flaskOnce(formula),
      ],
      ...weighedStandard(formula, "c_o", name),
      plausible: [atMost("c_o", mostMolPerL.KIO3)],
      reagents: [exactly(`potassium ${name}, ${dry}`, g(String(grams[0]), String(grams[1])), "weighed once")],
      steps: [
        `Weigh ${grams[0]} to ${grams[1]} g of dry potassium ${name} by difference into a beaker and dissolve it.`,
        "Rinse it into a 250 mL flask, make up to the mark, stopper and invert twenty times; label it.",
      ],
      cautions: [`Goggles on: ${name} is a strong oxidant; keep it from anything that burns.`, labelled],
    },
    {
      kind: "titration",
      key: "standardize",
      title: "Standardize the thiosulfate",
      inputs: [
        fromStage("c_o", `Concentration of the ${name}`, formula, "prepare"),
        pipetted(formula, `Aliquot of the ${name}`, "25.00"),
        titer("Na2S2O3"),
      ],
      relations: [
        { relation: "n_o = c_o * V_a", title: `Amount of ${name} in the aliquot`, unit: "mmol" },
        {
          relation: `n_t = n_o * ratio(S2O3^2-, ${species})`,
          title: "Thiosulfate for the iodine it sets free",
          unit: "mmol",
        },
        { relation: "c_t = n_t / V", title: "Concentration of the thiosulfate", unit: "mol/L" },
      ],
      result: {
        symbol: "c_t",
        name: "Concentration of the thiosulfate",
        unit: "mol/L",
        assigns: "Na2S2O3",
        equivalents: 1,
      },
      plausible: [atMost("c_t", mostMolPerL.Na2S2O3)],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: presumedMolPerL,
      expectMl,
      ...starchToColorless,
      reagents: [
        exactly(`the ${name} solution`, mL("25.00"), "into each flask"),
        atLast("potassium iodide", g("1"), "just before the titration, one flask at a time"),
        acid,
        atLast("starch, 1 %", mL("2"), "when the flask is pale yellow"),
      ],
      conditions:
        wait === null
          ? [{ what: "titrate at once: iodine escapes", minutes: 2, counts: "within" }]
          : [{ what: wait, minutes: 5 }],
      steps: [
        `Pipette 25.00 mL of the ${name} into a flask; add about 1 g of potassium iodide and the acid${wait ? "; stopper it and wait 5 min in the dark" : ""}.`,
        ...thiosulfateBurette,
        "Titrate to pale yellow, add 2 mL of starch, and go on drop by drop until the blue has just gone.",
      ],
      cautions: iodineCautions,
    },
  ];
}

export const iodateOxidant = (grams: [number, number], presumedMolPerL: number): Oxidant => ({
  formula: "KIO3",
  name: "iodate",
  species: "KIO3",
  grams,
  presumedMolPerL,
  expectMl: [18, 40],
  dry: "dried at 120 °C",
  acid: about("sulfuric acid, 1 mol/L", mL("10"), "after the iodide"),
  wait: null,
});

export const thiosulfateSubstances: Method["substances"] = {
  Na2S2O3: "sodium thiosulfate",
  KIO3: "potassium iodate",
};
