import { defineMethod } from "~/core/method";
import { authority, protection, iodineCautions, iodineHazards, iodineWaste } from "../../parts/safety";
import { pipetted, titer, flaskOnce, knownThiosulfate } from "../../parts/inputs";
import { about, atLast, exactly, g, mL, inWords } from "../../parts/reagents";
import { iodineThiosulfate } from "../../parts/equations";
import { starchToColorless } from "../../parts/indicators";
import { thiosulfateBurette } from "../../parts/burette";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** Hypochlorite in a bleach or disinfectant, by the iodine that it sets free. */
export const hypochlorite = defineMethod({
  id: "hypochlorite",
  version: 5,
  family: "redox",
  title: "Hypochlorite in a disinfectant, by iodine and thiosulfate",
  purpose: "The strength of a hypochlorite solution, also as active chlorine.",
  equations: [
    { name: "hypochlorite sets iodine free", equation: "ClO- + 2 I- + 2 H+ -> I2 + Cl- + H2O" },
    { name: "chlorine would do the same", equation: "Cl2 + 2 I- -> I2 + 2 Cl-" },
    iodineThiosulfate,
  ],
  substances: { "ClO-": "hypochlorite", Na2S2O3: "sodium thiosulfate" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the disinfectant",
      inputs: [
        knownThiosulfate,
        {
          symbol: "V_0",
          is: "pipette",
          label: "Disinfectant taken",
          of: "the disinfectant",
          per: "run",
          presumed: "10.00",
        },
        flaskOnce("the disinfectant", "250.0", "V_f", "Diluted in a flask of"),
        pipetted("the dilution", "Aliquot of the dilution", "25.00"),
        titer("Na2S2O3"),
      ],
      relations: [
        {
          relation: "n = c_t * V * ratio(ClO-, S2O3^2-)",
          title: "Hypochlorite in the aliquot",
          unit: "mmol",
        },
        { relation: "c_d = n / V_a", title: "In the dilution", unit: "mol/L" },
        { relation: "c = c_d * V_f / V_0", title: "In the disinfectant", unit: "mol/L" },
        { relation: "γ_n = c * M(NaClO)", title: "As sodium hypochlorite", unit: "% w/v" },
        {
          relation: "γ_c = c_t * V * ratio(Cl2, S2O3^2-) * M(Cl2) / V_a * V_f / V_0",
          title: "As active chlorine",
          unit: "% w/v",
        },
      ],
      result: { symbol: "c", name: "Hypochlorite in the disinfectant", unit: "mol/L" },
      also: [
        { symbol: "γ_n", name: "As sodium hypochlorite", unit: "% w/v" },
        { symbol: "γ_c", name: "As active chlorine", unit: "% w/v" },
      ],
      plausible: [atMost("c", mostMolPerL.NaClO)],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 0.65,
      expectMl: [5, 30],
      ...starchToColorless,
      reagents: [
        exactly(
          "the disinfectant",
          inWords("10.00 mL in 250.0 mL", mL("10.00")),
          "diluted once, for all flasks",
          "V_0",
        ),
        exactly("the diluted disinfectant", mL("25.00"), "into each flask", "V_a"),
        about("potassium iodide", g("1"), "before the acid"),
        about("acetic acid, 4 mol/L", mL("10"), "last, in the hood"),
        atLast("starch, 1 %", mL("2"), "when the flask is pale yellow"),
      ],
      conditions: [{ what: "titrate at once: iodine escapes", minutes: 2, counts: "within" }],
      steps: [
        "[take V_0] of the disinfectant into a 250 mL flask, make up to the mark, mix.",
        "[take V_a] into a flask; add about 1 g of potassium iodide, then, in the hood, 10 mL of acetic acid.",
        ...thiosulfateBurette,
        "Titrate to pale yellow, add 2 mL of starch, and go on drop by drop until the blue has just gone.",
      ],
      cautions: [
        "Hypochlorite with acid gives chlorine gas: the iodide goes in first, and all of it in the hood.",
        ...iodineCautions,
      ],
    },
  ],
  protection: [...protection, "Fume hood"],
  hazards: [
    "Hypochlorite and acid make chlorine, which harms the lungs: never mix them without the iodide, never outside the hood.",
    "Hypochlorite is corrosive and bleaches.",
    ...iodineHazards,
    authority,
  ],
  waste: [iodineWaste],
  glassware: [
    "50 mL burette",
    "10 mL and 25 mL one-mark pipettes and filler",
    "250 mL volumetric flask",
    "250 mL conical flasks",
  ],
});
