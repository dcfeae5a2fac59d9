import { defineMethod, type Method, type TitrationStage } from "~/core/method";
import type { Input } from "~/core/inputs";
import { authority, protection, iodineCautions, iodineHazards, iodineWaste } from "../../parts/safety";
import { pipetted, titer, knownIodine } from "../../parts/inputs";
import { about, exactly, g, mL } from "../../parts/reagents";
import { iodineBurette } from "../../parts/burette";
import { starchToBlue } from "../../parts/indicators";
import { atMost } from "../../parts/plausible";

const reduction = {
  name: "iodine and ascorbic acid",
  equation: "C6H8O6 + I2 -> C6H6O6 + 2 I- + 2 H+",
};

const sample = pipetted("the drink", "Drink taken", "25.00");

function ascorbicMethod(
  parts: Pick<Method, "id" | "title" | "variant" | "equations" | "substances">,
  titrant: { inputs: Input[]; amount: string } & Pick<TitrationStage, "reagents" | "meniscus">,
): Method {
  const { inputs, amount, reagents = [], meniscus } = titrant;
  return defineMethod({
    version: 4,
    family: "redox",
    purpose: "How much ascorbic acid a drink or a dissolved tablet holds.",
    stages: [
      {
        kind: "titration",
        key: "determine",
        title: "Titrate the ascorbic acid",
        inputs,
        relations: [
          { relation: amount, title: "Ascorbic acid in the flask", unit: "mmol" },
          { relation: "m_a = n * M(C6H8O6)", title: "Mass of it in the flask", unit: "mg" },
          { relation: "γ = m_a / V_a", title: "Ascorbic acid in the drink", unit: "mg/L" },
        ],
        result: { symbol: "γ", name: "Ascorbic acid in the drink", unit: "mg/L" },
        also: [{ symbol: "m_a", name: "Ascorbic acid in the flask", unit: "mg" }],
        plausible: [atMost("γ", 330_000, "mg/L")],
        agree: { on: "V / V_a", per: "V_a" },
        presumed: 1200,
        expectMl: [8, 30],
        ...starchToBlue,
        persistence: "The first blue-black that stays 30 s. In colored juices it looks dark, not blue.",
        meniscus,
        reagents: [
          exactly("the drink, filtered", mL("25.00"), "into each flask"),
          ...reagents,
          about("starch, 1 %", mL("2"), "before the titration"),
        ],
        conditions: [{ what: "titrate soon: air oxidizes ascorbic acid", minutes: 15, counts: "within" }],
        steps: [
          "Filter the drink, or dissolve a tablet and make it up to the mark; pipette 25.00 mL into a flask.",
          "Add what is listed under the reagents, then the starch.",
          ...(meniscus === "top"
            ? iodineBurette
            : ["Rinse the burette with water, then with the iodate. Read the bottom of the meniscus."]),
          "Titrate, swirling, to the first blue-black that stays.",
        ],
        cautions: iodineCautions,
      },
    ],
    protection,
    hazards: [
      ...iodineHazards,
      "Hydrochloric acid irritates; acid into water, never water into acid.",
      authority,
    ],
    waste: [iodineWaste],
    glassware: [
      "50 mL burette",
      "25 mL one-mark pipette and filler",
      "250 mL conical flasks",
      "funnel and filter paper",
    ],
    ...parts,
  });
}

export const ascorbicAcidByIodine = ascorbicMethod(
  {
    id: "ascorbic-acid-by-iodine",
    title: "Ascorbic acid by iodine",
    equations: [reduction],
    substances: { C6H8O6: "ascorbic acid", I2: "iodine" },
  },
  {
    inputs: [knownIodine, sample, titer("I2")],
    amount: "n = c_i * V * ratio(C6H8O6, I2)",
    reagents: [about("water", mL("50"), "before the titration")],
    meniscus: "top",
  },
);

export const ascorbicAcidByIodate = ascorbicMethod(
  {
    id: "ascorbic-acid-by-iodate",
    title: "Ascorbic acid by iodate with iodide",
    variant: {
      of: "ascorbic-acid-by-iodine",
      differs: "iodate in the burette makes the iodine in the flask, where iodide and acid wait",
    },
    equations: [
      { name: "iodate sets iodine free", equation: "KIO3 + 5 I- + 6 H+ -> 3 I2 + 3 H2O + K+" },
      reduction,
    ],
    substances: { C6H8O6: "ascorbic acid", KIO3: "potassium iodate" },
  },
  {
    inputs: [
      {
        symbol: "c_o",
        is: "given",
        label: "Concentration of the iodate",
        of: "KIO3",
        per: "run",
        unit: "mol/L",
        presumed: { value: "0.00400", plusMinus: "0.00001" },
      },
      sample,
      titer("KIO3"),
    ],
    amount: "n = c_o * V * ratio(C6H8O6, KIO3)",
    reagents: [
      about("potassium iodide", g("1"), "before the titration"),
      about("hydrochloric acid, 1 mol/L", mL("5"), "before the titration"),
    ],
    meniscus: "bottom",
  },
);
