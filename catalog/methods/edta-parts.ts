import type { InputOf } from "~/core/inputs";
import type { TitrationStage } from "~/core/method";
import { fillBelowEyes, fromStage, labelled, noMouth, pipetted, purityOf, titer } from "./parts";
import { about, atLast, exactly, flaskOnce, weighedOnce, weighedStandard } from "./redox-parts";
import { atMost, mostMolPerL } from "./plausible";

/* What complexometric methods share. Common practice, no source. */

/** EDTA as it stands in solution, with two hydrogens left, and its complex with a metal of charge two. */
export const ligand = "C10H14N2O8^2-";
export const complexOf = (metal: string) => `${metal}C10H12N2O8^2-`;
export const binding = (metal: string, name: string) => ({
  name,
  equation: `${metal}^2+ + ${ligand} -> ${complexOf(metal)} + 2 H+`,
});

/** The salt that EDTA solutions are made of, without its water: the name under which they stand on the shelf. */
export const edta = "Na2C10H14N2O8";

export const edtaSubstances = { [edta]: "disodium EDTA" };

/** Eriochrome black T at pH 10. */
export const wineRedToBlue = {
  indicator: "eriochrome black T, 3 to 5 drops or a few grains",
  persistence: "Sky blue with no red left must stay. It is slow at the end: a drop, then wait.",
  meniscus: "bottom",
  ribbon: [
    { color: "#8f2d56", looks: "wine red", do: "keep going" },
    { color: "#74528c", looks: "purple", do: "a drop, then wait" },
    { color: "#3f6fb5", looks: "sky blue, no red left", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

/** The same in a back-titration: the metal comes to the EDTA. */
export const blueToWineRed = {
  indicator: "eriochrome black T, 3 to 5 drops or a few grains",
  persistence: "The first red that stays on swirling.",
  meniscus: "bottom",
  ribbon: [
    { color: "#3f6fb5", looks: "blue", do: "keep going" },
    { color: "#74528c", looks: "purple that goes back", do: "one drop at a time" },
    { color: "#8f2d56", looks: "wine red, and stays so", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

/** Hydroxynaphthol blue at pH 12 to 13, for calcium alone. */
export const pinkToBlue = {
  indicator: "hydroxynaphthol blue (or murexide: pink to violet)",
  persistence: "Clear blue with no pink left must stay.",
  meniscus: "bottom",
  ribbon: [
    { color: "#b8407a", looks: "pink-red", do: "keep going" },
    { color: "#7d5aa6", looks: "violet", do: "a drop, then wait" },
    { color: "#3a6cb0", looks: "clear blue", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

export const edtaBurette = [
  "Rinse the burette with water, then with the EDTA. Fill it, clear the tip of bubbles, take the funnel out.",
  "Read at eye level against a white card, the bottom of the meniscus.",
];

export const buffer = atLast("ammonia buffer, pH 10", "5 mL", "in the hood, just before the titration");
export const magnesiumEdta = about(
  "Mg-EDTA, 0.05 mol/L",
  "0.5 mL",
  "so that calcium alone gives a sharp end",
);

export const ammoniaHazard =
  "The buffer gives off ammonia: it stings eyes and lungs. Hood, and keep the bottle shut.";
export const edtaWaste =
  "Titrated flasks: to the drain with much water, where local rules allow it; metals other than calcium and magnesium to the heavy-metal waste.";

export const edtaCautions = [
  "Goggles on; open the ammonia buffer in the hood only.",
  fillBelowEyes,
  noMouth,
  labelled,
];

export const knownEdta: InputOf<"given"> = {
  symbol: "c_y",
  is: "given",
  label: "Concentration of the EDTA",
  of: edta,
  per: "run",
  unit: "mol/L",
  presumed: { value: "0.0500", plusMinus: "0.0001" },
};

export const edtaTiter = titer("EDTA");

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
        exactly(name, `${grams[0]} to ${grams[1]} g`, "weighed once"),
        about("hydrochloric acid, 4 mol/L", "5 mL", "drop by drop, until it has dissolved"),
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
      reagents: [exactly("the standard", "25.00 mL", "into each flask"), buffer, magnesiumEdta],
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

export const edtaGlassware = [
  "50 mL burette",
  "25 mL one-mark pipette and filler",
  "250 mL volumetric flask",
  "250 mL conical flasks",
  "weighing boats",
  "balance reading to 0.1 mg",
];
