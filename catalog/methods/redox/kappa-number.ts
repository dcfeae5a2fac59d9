import { defineMethod, type Reagent } from "~/core/method";
import {
  authority,
  fillBelowEyes,
  labelled,
  protection,
  iodineHazards,
  iodineWaste,
  manganeseWaste,
  sulfuricHazard,
} from "../../parts/safety";
import { fromStage, titer, knownThiosulfate } from "../../parts/inputs";
import { about, atLast, exactly, g, mL, inWords } from "../../parts/reagents";
import { iodineThiosulfate } from "../../parts/equations";
import { starchToColorless } from "../../parts/indicators";
import { thiosulfateBurette } from "../../parts/burette";
import { notNegative, validFor } from "../../parts/plausible";
import { densityOf } from "../../densities";

const reagents: Reagent[] = [
  exactly("permanganate, 0.1 N (0.02 mol/L)", mL("100.0"), "together with the acid: the time starts"),
  about("sulfuric acid, 4 N (2 mol/L)", mL("100"), "together with the permanganate"),
  atLast("potassium iodide, 1 mol/L", mL("20"), "after exactly 10 min: it stops the reaction"),
  atLast("starch, 1 %", mL("3"), "when the beaker is pale yellow"),
];

const conditions = [
  { what: "react, then iodide at once", minutes: 10, strict: true },
  { what: "in the bath, at", celsius: [24, 26] as [number, number], strict: true },
];

/** Kappa number of a pulp: the permanganate that it uses in ten minutes. Formula: ISO 302 / TAPPI T 236, as CHECKS.md gives it. */
export const kappaNumber = defineMethod({
  id: "kappa-number",
  version: 4,
  family: "redox",
  title: "Kappa number of a pulp",
  purpose: "How much permanganate a pulp uses, a measure of the lignin left in it.",
  equations: [
    {
      name: "permanganate that is left sets iodine free",
      equation: "2 MnO4- + 10 I- + 16 H+ -> 2 Mn^2+ + 5 I2 + 8 H2O",
    },
    iodineThiosulfate,
  ],
  substances: { Na2S2O3: "sodium thiosulfate", KMnO4: "potassium permanganate" },
  stages: [
    {
      kind: "titration",
      key: "blank",
      title: "Titrate the blank",
      inputs: [titer("Na2S2O3")],
      relations: [{ relation: "b = V", title: "Titer of the blank", unit: "mL" }],
      result: { symbol: "b", name: "Titer of the blank", unit: "mL" },
      plausible: [notNegative("b", "mL")],
      agree: { on: "V" },
      presumed: 49,
      expectMl: [45, 50],
      ...starchToColorless,
      reagents,
      conditions,
      steps: [
        "As with pulp, but without it: 800 mL of water at 25 °C in the beaker, the stirrer running.",
        "Add permanganate and acid together, start the time; stop with iodide after exactly 10 min.",
        ...thiosulfateBurette,
        "Titrate the iodine; starch when pale yellow; to colorless.",
      ],
      cautions: ["Goggles and gloves on: 2 mol/L acid and permanganate.", fillBelowEyes, labelled],
    },
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the pulp",
      inputs: [
        fromStage("b", "Titer of the blank", "Na2S2O3", "blank"),
        { ...knownThiosulfate, presumed: { value: "0.2000", plusMinus: "0.0005" } },
        {
          symbol: "w",
          is: "mass",
          weighing: "tared",
          label: "Pulp, oven-dry",
          of: "pulp",
          per: "trial",
          expect: [1.2, 2.8],
          ...densityOf("pulp"),
        },
        {
          symbol: "t",
          is: "temperature",
          label: "Temperature of the reaction",
          per: "trial",
          plusMinus: "0.2",
        },
        titer("Na2S2O3"),
      ],
      relations: [
        { relation: "N = c_t * equivalents(S2O3^2-)", title: "Normality of the thiosulfate", unit: "N" },
        { relation: "p = (b - V) * N / 0.1 [N]", title: "Permanganate used", unit: "mL" },
        {
          relation: "f = 10 ^ (0.00093 * (p / 1 [mL] - 50))",
          title: "Correction to half of the permanganate",
          unit: "1",
        },
        { relation: "K = p / 1 [mL] * f / (w / 1 [g])", title: "Kappa number as titrated", unit: "1" },
        {
          relation: "κ = K * (1 + 0.013 * (25 [°C] - t) / 1 [°C])",
          title: "Kappa number at 25 °C",
          unit: "1",
        },
      ],
      result: { symbol: "κ", name: "Kappa number", unit: "1" },
      also: [{ symbol: "p", name: "Permanganate used", unit: "mL" }],
      plausible: [
        notNegative("κ", "1"),
        // ISO 302: the pulp uses 30 to 70 % of the 100 mL; the correction is for a few degrees about 25 °C (from memory).
        validFor("p", 30, 70, "mL"),
        validFor("t", 20, 30, "°C"),
      ],
      agree: { on: "κ" },
      presumed: 25,
      expectMl: [14, 35],
      ...starchToColorless,
      reagents: [
        exactly(
          "pulp, oven-dry mass known",
          inWords("about 2 g for an expected 25", g("2")),
          "shredded in 800 mL of water",
        ),
        ...reagents,
      ],
      conditions: [
        ...conditions,
        { what: "consumption should be 30 to 70 % of the permanganate: else take more or less pulp" },
      ],
      steps: [
        "Weigh the pulp so that it will use 30 to 70 mL of the permanganate: about 50 / the expected kappa number, in g.",
        "Shred it in 800 mL of water at 25 °C until no fiber bundles are left; stir without drawing air.",
        "Add permanganate and acid together, start the time; note the temperature after 5 min; stop with iodide after exactly 10 min.",
        ...thiosulfateBurette,
        "Titrate the iodine at once; starch when pale yellow; to colorless.",
      ],
      cautions: ["Goggles and gloves on: 2 mol/L acid and permanganate.", fillBelowEyes, labelled],
    },
  ],
  protection,
  hazards: ["Permanganate oxidizes and stains.", sulfuricHazard, ...iodineHazards, authority],
  waste: [manganeseWaste, iodineWaste],
  glassware: [
    "50 mL burette",
    "100 mL one-mark pipette and filler",
    "1500 mL beakers",
    "shredder",
    "stirrer",
    "water bath at 25 °C",
    "thermometer reading to 0.2 °C",
    "stop clock",
    "balance reading to 0.1 mg",
  ],
});
