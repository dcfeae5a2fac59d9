import { type Condition, defineMethod, type Method, type TitrationStage } from "~/core/method";
import {
  authority,
  protection,
  manganeseWaste,
  permanganateHazards,
  redoxCautions,
} from "../../parts/safety";
import { purityOf, permanganateTiter, weighedSolid } from "../../parts/inputs";
import { about, exactly, g, mL } from "../../parts/reagents";
import { permanganateBurette } from "../../parts/burette";
import { permanganateGlassware } from "../../parts/glassware";
import { permanganateOxalate } from "../../parts/equations";
import { selfIndicatingHot } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

interface Heating {
  readonly conditions: Condition[];
  readonly step: string;
}

/** Permanganate against sodium oxalate in each flask; how hot is a matter of schools. */
export const oxalateStage = ({ conditions, step }: Heating): TitrationStage => ({
  kind: "titration",
  key: "standardize",
  title: "Standardize the permanganate, hot",
  inputs: [
    weighedSolid("Na2C2O4", "Mass of the oxalate", [0.15, 0.3]),
    purityOf("Na2C2O4", "Purity of the oxalate", "99.95", "0.05"),
    permanganateTiter,
  ],
  relations: [
    { relation: "n_o = m * P / M(Na2C2O4)", title: "Oxalate in the flask", unit: "mmol" },
    { relation: "n_p = n_o * ratio(MnO4-, C2O4^2-)", title: "Permanganate it takes", unit: "mmol" },
    { relation: "c_p = n_p / V", title: "Concentration of the permanganate", unit: "mol/L" },
    { relation: "N_p = c_p * equivalents(MnO4-)", title: "In equivalents", unit: "N" },
  ],
  result: {
    symbol: "c_p",
    name: "Concentration of the permanganate",
    unit: "mol/L",
    assigns: "KMnO4",
    equivalents: 5,
  },
  also: [{ symbol: "N_p", name: "Normality of the permanganate", unit: "N" }],
  plausible: [atMost("c_p", mostMolPerL.KMnO4)],
  agree: { on: "V / m", per: "m" },
  presumed: 0.02,
  expectMl: [20, 46],
  ...selfIndicatingHot,
  reagents: [
    exactly("sodium oxalate, dried at 105 °C", g("0.15", "0.30"), "weighed into each flask"),
    about("sulfuric acid, 1 to 3 mol/L", mL("75"), "to dissolve the oxalate"),
  ],
  conditions,
  steps: [
    "Dry the sodium oxalate at 105 °C for an hour and let it cool in a desiccator.",
    "Weigh 0.15 to 0.30 g by difference into a flask; dissolve it in about 75 mL of dilute sulfuric acid.",
    ...permanganateBurette,
    step,
  ],
  cautions: [
    "The flask is hot: hold it by the neck with a towel or tongs.",
    "Too hot, or permanganate too fast: oxalic acid decomposes or brown oxide appears, and the flask is lost.",
    ...redoxCautions,
  ],
});

export const oxalateMethod = (
  parts: Pick<Method, "id" | "title"> & Partial<Pick<Method, "variant">>,
  heating: Heating,
): Method =>
  defineMethod({
    version: 4,
    family: "redox",
    purpose:
      "Fix the concentration of a permanganate solution against weighed oxalate. Permanganate is no primary standard and changes on standing: before use, and again after a week.",
    equations: [permanganateOxalate],
    substances: { KMnO4: "potassium permanganate", Na2C2O4: "sodium oxalate" },
    stages: [oxalateStage(heating)],
    protection: [...protection, "Heat-proof glove or tongs"],
    hazards: [
      ...permanganateHazards,
      "Oxalates are poisonous: not on the skin, not in the mouth.",
      authority,
    ],
    waste: [manganeseWaste],
    glassware: [
      ...permanganateGlassware,
      "hot plate",
      "thermometer, 0 to 110 °C",
      "weighing boats",
      "balance reading to 0.1 mg",
      "desiccator",
    ],
    ...parts,
  });

/** The school that starts warm and holds it there. */
export const permanganateByOxalate = oxalateMethod(
  { id: "permanganate-by-oxalate", title: "Permanganate by oxalate, held at 55 to 60 °C" },
  {
    conditions: [
      { what: "start warm and hold it: below, the end comes slowly", celsius: [55, 60], strict: true },
    ],
    step: "Heat to 55 to 60 °C, titrate slowly, and keep it there; warm it again before the end if it has cooled.",
  },
);
