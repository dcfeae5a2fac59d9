import { type Condition, defineMethod, type Method, type Reagent } from "~/core/method";
import {
  authority,
  protection,
  manganeseWaste,
  permanganateHazards,
  redoxCautions,
} from "../../parts/safety";
import { pipetted, knownPermanganate, permanganateTiter } from "../../parts/inputs";
import { about, exactly, mL } from "../../parts/reagents";
import { permanganateBurette } from "../../parts/burette";
import { permanganateGlassware } from "../../parts/glassware";
import { selfIndicating, selfIndicatingHot } from "../../parts/indicators";
import type { Input } from "~/core/inputs";

interface Reductant {
  readonly formula: string;
  readonly ion: string;
  readonly name: string;
  readonly electrons: number;
  readonly concentration: string;
  readonly aliquot: string;
  readonly acids: Reagent[];
  readonly acidWords: string;
  /** How it comes into the flask, where it is not an aliquot by pipette. */
  readonly delivered?: Input;
  readonly takenWords?: string;
  readonly conditions?: Condition[];
}

/** Electrons that one reductant gives, from known amounts of it and of permanganate. */
function oxidationNumber(parts: Pick<Method, "id" | "title" | "variant">, reductant: Reductant): Method {
  const { formula, ion, name, electrons, concentration, aliquot, acids, acidWords, delivered } = reductant;
  const takenWords = reductant.takenWords ?? `Pipette ${aliquot} mL of the ${ion} solution into a flask`;
  return defineMethod({
    version: 4,
    family: "redox",
    purpose: `By how much the oxidation number of ${ion} rises, unrounded and as the nearest whole number.`,
    equations: [{ name: "permanganate takes electrons", equation: "MnO4- + 8 H+ + 5 e- -> Mn^2+ + 4 H2O" }],
    substances: { KMnO4: "potassium permanganate", [formula]: name },
    stages: [
      {
        kind: "titration",
        key: "determine",
        title: `Titrate the ${ion}`,
        inputs: [
          knownPermanganate,
          {
            symbol: "c_r",
            is: "given",
            label: `Concentration of the ${ion}`,
            of: formula,
            per: "run",
            unit: "mol/L",
            presumed: { value: concentration, plusMinus: "0.0003" },
          },
          delivered ?? pipetted(formula, `Aliquot of the ${ion}`, aliquot),
          permanganateTiter,
        ],
        relations: [
          { relation: "n_e = c_p * V * ratio(e-, MnO4-)", title: "Electrons taken", unit: "mmol" },
          { relation: "n_r = c_r * V_a", title: "Reductant in the flask", unit: "mmol" },
          { relation: "z = n_e / n_r", title: "Electrons given by one", unit: "1" },
        ],
        result: { symbol: "z", name: `Change of oxidation number of ${ion}`, unit: "1", nearestWhole: true },
        plausible: [{ rule: "whole number", symbol: "z" }],
        agree: { on: "V / V_a", per: "V_a" },
        presumed: electrons,
        expectMl: [15, 30],
        ...(reductant.conditions ? selfIndicatingHot : selfIndicating),
        reagents: [exactly(`the ${ion} solution`, mL(aliquot), "into each flask"), ...acids],
        conditions: reductant.conditions ?? [
          { what: "titrate soon: air oxidizes the reductant", minutes: 10, counts: "within" },
        ],
        steps: [
          `${takenWords}; ${acidWords}`,
          ...permanganateBurette,
          "Two trials within 0.2 mL are enough; else make a third (a house rule, two, else a third).",
        ],
        cautions: redoxCautions,
      },
    ],
    protection,
    hazards: [...permanganateHazards, authority],
    waste: [manganeseWaste],
    glassware: [
      ...permanganateGlassware,
      delivered ? "second 50 mL burette" : `${Number(aliquot)} mL one-mark pipette and filler`,
    ],
    ...parts,
  });
}

const sulfuric = about("sulfuric acid, 1 mol/L", mL("20"), "before the titration");

export const oxidationNumberOfIron = oxidationNumber(
  { id: "oxidation-number-of-iron", title: "Change of oxidation number: iron(II)" },
  {
    formula: "FeSO4",
    ion: "iron(II)",
    name: "iron(II) sulfate",
    electrons: 1,
    concentration: "0.1000",
    aliquot: "25.00",
    acids: [sulfuric, about("phosphoric acid, 85 %", mL("5"), "before the titration")],
    acidWords: "add 20 mL of sulfuric and 5 mL of phosphoric acid.",
  },
);

export const oxidationNumberOfTin = oxidationNumber(
  {
    id: "oxidation-number-of-tin",
    title: "Change of oxidation number: tin(II)",
    variant: { of: "oxidation-number-of-iron", differs: "tin(II) without phosphoric acid" },
  },
  {
    formula: "SnCl2",
    ion: "tin(II)",
    name: "tin(II) chloride",
    electrons: 2,
    concentration: "0.1000",
    aliquot: "10.00",
    acids: [sulfuric],
    acidWords: "add 20 mL of sulfuric acid, and no phosphoric.",
  },
);

/** Both solutions stand in burettes, so that any volume of either can be taken. */
export const oxidationNumberOfOxalate = oxidationNumber(
  {
    id: "oxidation-number-of-oxalate",
    title: "Change of oxidation number: oxalate, from two burettes",
    variant: {
      of: "oxidation-number-of-iron",
      differs: "oxalate, hot; it is delivered from a burette of its own",
    },
  },
  {
    formula: "Na2C2O4",
    ion: "oxalate",
    name: "sodium oxalate",
    electrons: 2,
    concentration: "0.0500",
    aliquot: "25.00",
    acids: [sulfuric],
    acidWords: "add 20 mL of sulfuric acid and heat to 60 to 80 °C.",
    delivered: { symbol: "V_a", is: "delivered", label: "Oxalate delivered", of: "Na2C2O4", per: "trial" },
    takenWords:
      "Let about 25 mL of the oxalate solution run from its burette into a flask, and read it before and after",
    conditions: [{ what: "hot: in the cold it hardly reacts", celsius: [60, 80], strict: true }],
  },
);
