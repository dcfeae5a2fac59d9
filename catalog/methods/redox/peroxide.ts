import { defineMethod, type Method, type TitrationStage } from "~/core/method";
import type { Input } from "~/core/inputs";
import {
  authority,
  protection,
  manganeseWaste,
  permanganateHazards,
  redoxCautions,
} from "../../parts/safety";
import { about, exactly, g, mL, inWords } from "../../parts/reagents";
import { flaskOnce, knownPermanganate, permanganateTiter, pipetted } from "../../parts/inputs";
import { permanganateBurette } from "../../parts/burette";
import { permanganateGlassware } from "../../parts/glassware";
import { selfIndicating } from "../../parts/indicators";
import { atMost, atMostAll, mostMolPerL } from "../../parts/plausible";
import { densityOf } from "../../densities";

const equation = {
  name: "permanganate and peroxide",
  equation: "2 MnO4- + 5 H2O2 + 6 H+ -> 2 Mn^2+ + 5 O2 + 8 H2O",
};

const amount = {
  relation: "n = c_p * V * ratio(H2O2, MnO4-)",
  title: "Peroxide in the flask",
  unit: "mmol",
};

type Parts = Pick<
  TitrationStage,
  "inputs" | "relations" | "result" | "also" | "plausible" | "agree" | "presumed" | "reagents"
>;

function peroxideMethod(
  about_: Pick<Method, "id" | "title" | "purpose" | "variant" | "glassware">,
  parts: Parts,
  first: readonly string[],
): Method {
  return defineMethod({
    version: 5,
    family: "redox",
    equations: [equation],
    substances: { KMnO4: "potassium permanganate", H2O2: "hydrogen peroxide" },
    stages: [
      {
        kind: "titration",
        key: "determine",
        title: "Titrate the peroxide",
        expectMl: [12, 40],
        ...selfIndicating,
        conditions: [
          { what: "work quickly: peroxide decomposes in light and air", minutes: 10, counts: "within" },
          { what: "cold: do not heat", celsius: [10, 30] },
        ],
        steps: [
          ...first,
          ...permanganateBurette,
          "The first drops may stay pink for a few seconds; then titrate to the faintest pink that stays 30 s.",
        ],
        cautions: ["Peroxide bleaches skin and can burst a tightly shut bottle.", ...redoxCautions],
        ...parts,
      },
    ],
    protection,
    hazards: [
      ...permanganateHazards,
      "Hydrogen peroxide oxidizes and burns: keep it from skin, eyes and anything that burns; never return it to its bottle.",
      authority,
    ],
    waste: [manganeseWaste],
    ...about_,
  });
}

const byVolume: Input[] = [
  knownPermanganate,
  { symbol: "V_0", is: "pipette", label: "Peroxide taken", of: "H2O2", per: "run", presumed: "10.00" },
  flaskOnce("H2O2", "250.0", "V_f", "Diluted in a flask of"),
  pipetted("H2O2", "Aliquot of the dilution", "25.00"),
  permanganateTiter,
];

export const peroxideByVolume = peroxideMethod(
  {
    id: "peroxide-by-volume",
    title: "Hydrogen peroxide by permanganate, diluted first",
    purpose: "The strength of a peroxide solution, in mol/L and % w/v.",
    glassware: [
      ...permanganateGlassware,
      "10 mL and 25 mL one-mark pipettes and filler",
      "250 mL volumetric flask",
    ],
  },
  {
    inputs: byVolume,
    relations: [
      amount,
      { relation: "c_d = n / V_a", title: "In the dilution", unit: "mol/L" },
      { relation: "c = c_d * V_f / V_0", title: "In the peroxide as received", unit: "mol/L" },
      { relation: "γ = c * M(H2O2)", title: "As mass concentration", unit: "% w/v" },
    ],
    result: { symbol: "c", name: "Hydrogen peroxide as received", unit: "mol/L" },
    also: [{ symbol: "γ", name: "Hydrogen peroxide as received", unit: "% w/v" }],
    agree: { on: "V / V_a", per: "V_a" },
    plausible: [atMost("c", mostMolPerL.H2O2), atMostAll("γ", "1.45 [g/mL]", "pure hydrogen peroxide")],
    presumed: 0.88,
    reagents: [
      exactly(
        "the peroxide",
        inWords("10.00 mL in 250.0 mL", mL("10.00")),
        "diluted once, for all flasks",
        "V_0",
      ),
      exactly("the diluted peroxide", mL("25.00"), "into each flask", "V_a"),
      about("sulfuric acid, 1 mol/L", mL("25"), "before the titration"),
    ],
  },
  [
    "[take V_0] of the peroxide into a 250 mL flask, make up to the mark, mix.",
    "[take V_a] into a flask; add 25 mL of sulfuric acid.",
  ],
);

export const peroxideByMass = peroxideMethod(
  {
    id: "peroxide-by-mass",
    title: "Hydrogen peroxide by permanganate, weighed sample",
    purpose: "The strength of a peroxide solution as a mass fraction, from weighed samples.",
    variant: { of: "peroxide-by-volume", differs: "each flask is weighed empty and with its sample" },
    glassware: [...permanganateGlassware, "dropping pipette", "balance reading to 0.1 mg"],
  },
  {
    inputs: [
      knownPermanganate,
      {
        symbol: "m",
        is: "mass",
        weighing: "addition",
        label: "Mass of peroxide",
        of: "H2O2 solution",
        per: "trial",
        before: "Flask empty",
        after: "Flask with sample",
        expect: [0.8, 1.6],
        ...densityOf("H2O2 solution"),
      },
      permanganateTiter,
    ],
    relations: [
      amount,
      { relation: "m_p = n * M(H2O2)", title: "Mass of peroxide in the flask", unit: "mg" },
      { relation: "w = m_p / m", title: "Mass fraction", unit: "% w/w" },
    ],
    result: { symbol: "w", name: "Hydrogen peroxide in the sample", unit: "% w/w" },
    agree: { on: "V / m", per: "m" },
    plausible: [atMostAll("w")],
    presumed: 3,
    reagents: [
      exactly("the peroxide", g("0.8", "1.6"), "into each weighed flask"),
      about("water", mL("50"), "after weighing"),
      about("sulfuric acid, 1 mol/L", mL("25"), "before the titration"),
    ],
  },
  [
    "Weigh a dry flask, add about 1 mL of the peroxide, weigh again at once; add 50 mL of water and 25 mL of sulfuric acid.",
  ],
);
