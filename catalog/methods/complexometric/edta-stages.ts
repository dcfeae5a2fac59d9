import { weighedOnce, purityOf, flaskOnce, fromStage, pipetted, edtaTiter } from "../../parts/inputs";
import { weighedStandard, ligand, edta } from "../../parts/equations";
import { atMost, mostMolPerL } from "../../parts/plausible";
import { about, buffer, exactly, g, mL, magnesiumEdta } from "../../parts/reagents";
import { labelled, edtaCautions } from "../../parts/safety";
import { wineRedToBlue } from "../../parts/indicators";
import { edtaBurette } from "../../parts/burette";

interface Standard {
  readonly formula: string;
  readonly name: string;
  readonly species: string;
  readonly grams: [number, number];
  readonly purity: readonly [string, string];
  readonly dissolve: string;
}

/** A metal standard made up to the mark, and EDTA standardized on aliquots of it. */
export function edtaStages({ formula, name, species, grams, purity, dissolve }: Standard) {
  return [
    {
      kind: "preparation" as const,
      key: "prepare",
      title: `Make the ${name} standard`,
      inputs: [
        weighedOnce(formula, `Mass of ${name}`, grams),
        purityOf(formula, `Purity of the ${name}`, ...purity),
        flaskOnce(formula),
      ],
      ...weighedStandard(formula, "c_s", `${name} standard`),
      plausible: [atMost("c_s", mostMolPerL.metal)],
      reagents: [
        exactly(name, g(String(grams[0]), String(grams[1])), "weighed once"),
        about("hydrochloric acid, 4 mol/L", mL("5"), "drop by drop, until it has dissolved"),
      ],
      steps: [
        dissolve,
        "Rinse it into a 250 mL flask, make up to the mark, stopper and invert twenty times; label it.",
      ],
      cautions: [
        "Goggles on: it foams and spatters when the acid is added. Cover the beaker with a watch glass.",
        labelled,
      ],
    },
    {
      kind: "titration" as const,
      key: "standardize",
      title: "Standardize the EDTA",
      inputs: [
        fromStage("c_s", `Concentration of the ${name} standard`, formula, "prepare"),
        pipetted(formula, "Aliquot of the standard", "25.00"),
        edtaTiter,
      ],
      relations: [
        { relation: "n_s = c_s * V_a", title: "Metal in the aliquot", unit: "mmol" },
        { relation: `n_y = n_s * ratio(${ligand}, ${species})`, title: "EDTA it takes", unit: "mmol" },
        { relation: "c_y = n_y / V", title: "Concentration of the EDTA", unit: "mol/L" },
      ],
      result: { symbol: "c_y", name: "Concentration of the EDTA", unit: "mol/L", assigns: edta },
      plausible: [atMost("c_y", mostMolPerL.EDTA)],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 0.01,
      expectMl: [20, 30] as [number, number],
      ...wineRedToBlue,
      reagents: [exactly("the standard", mL("25.00"), "into each flask"), buffer, magnesiumEdta],
      conditions: [{ what: "at pH 10, room temperature", celsius: [15, 40] as [number, number] }],
      steps: [
        "Pipette 25.00 mL of the standard into a flask, add 25 mL of water; in the hood, 5 mL of buffer and 0.5 mL of Mg-EDTA.",
        "Add 3 to 5 drops of eriochrome black T: wine red.",
        ...edtaBurette,
        "Titrate through purple to sky blue; near the end a drop, then wait.",
      ],
      cautions: edtaCautions,
    },
  ];
}
