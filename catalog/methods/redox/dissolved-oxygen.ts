import { defineMethod } from "~/core/method";
import {
  authority,
  labelled,
  noMouth,
  fillBelowEyes,
  protection,
  iodineHazards,
  iodineWaste,
  manganeseWaste,
  sulfuricHazard,
} from "../../parts/safety";
import { fromStage, pipetted, titer } from "../../parts/inputs";
import { about, atLast, exactly, mL } from "../../parts/reagents";
import { iodateReleases, iodineThiosulfate } from "../../parts/equations";
import { starchToColorless } from "../../parts/indicators";
import { thiosulfateBurette } from "../../parts/burette";
import { iodateOxidant, thiosulfateStages, thiosulfateSubstances } from "./thiosulfate-stages";
import { thiosulfateGlassware } from "../../parts/glassware";
import { atMost } from "../../parts/plausible";

/** Oxygen fixed in the bottle by manganese(II), set free as iodine, titrated by thiosulfate that iodate has fixed. */
export const dissolvedOxygen = defineMethod({
  id: "dissolved-oxygen",
  version: 6,
  family: "redox",
  title: "Dissolved oxygen, fixed with manganese",
  purpose: "How much oxygen a water holds, with thiosulfate standardized on iodate first.",
  equations: [
    { name: "fixing", equation: "2 Mn^2+ + O2 + 4 OH- -> 2 MnO2 + 2 H2O" },
    { name: "release", equation: "MnO2 + 2 I- + 4 H+ -> Mn^2+ + I2 + 2 H2O" },
    iodateReleases,
    iodineThiosulfate,
  ],
  substances: { ...thiosulfateSubstances, O2: "oxygen", "Mn^2+": "manganese(II)" },
  stages: [
    ...thiosulfateStages(iodateOxidant([0.1, 0.13], 0.0125)),
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the fixed oxygen",
      inputs: [
        fromStage("c_t", "Concentration of the thiosulfate", "Na2S2O3", "standardize"),
        {
          symbol: "V_b",
          is: "given",
          label: "Volume of the bottle",
          per: "run",
          unit: "mL",
          presumed: { value: "300.0", plusMinus: "0.3" },
        },
        {
          symbol: "V_r",
          is: "given",
          label: "Reagents added to the bottle",
          per: "run",
          unit: "mL",
          presumed: { value: "4.0", plusMinus: "0.1" },
        },
        pipetted("the fixed water", "Fixed water taken", "200.00"),
        titer("Na2S2O3"),
      ],
      relations: [
        { relation: "n = c_t * V * ratio(O2, S2O3^2-)", title: "Oxygen in the aliquot", unit: "mmol" },
        { relation: "γ_0 = n * M(O2) / V_a", title: "Oxygen in the fixed water", unit: "mg/L" },
        {
          relation: "γ = γ_0 * V_b / (V_b - V_r)",
          title: "Corrected for the water that the reagents pushed out",
          unit: "mg/L",
        },
      ],
      result: { symbol: "γ", name: "Dissolved oxygen", unit: "mg/L" },
      // Water at 0 °C under pure oxygen holds 70 mg/L (from memory).
      plausible: [atMost("γ", 70, "mg/L")],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 8,
      expectMl: [8, 28],
      ...starchToColorless,
      reagents: [
        about("manganese(II) sulfate solution", mL("2"), "under the surface, as soon as the bottle is full"),
        about("alkaline iodide solution", mL("2"), "under the surface, right after"),
        about("sulfuric acid, concentrated", mL("2"), "when the precipitate has settled"),
        exactly("the fixed water", mL("200.00"), "into each flask", "V_a"),
        atLast("starch, 1 %", mL("2"), "when the flask is pale yellow"),
      ],
      conditions: [
        {
          what: "let the precipitate settle to half of the bottle, shake, and let it settle again",
          minutes: 10,
        },
        { what: "fixed water keeps for some hours in the dark, stoppered", minutes: 360, counts: "within" },
      ],
      steps: [
        "Fill the bottle from the bottom with a tube until it has overflowed by its own volume; no bubble under the stopper.",
        "Add 2 mL of manganese(II) sulfate and 2 mL of alkaline iodide, both under the surface; stopper, invert; let it settle twice.",
        "Add 2 mL of concentrated sulfuric acid down the neck, stopper, invert until all has dissolved to brown.",
        "[take V_a] into a 500 mL flask.",
        ...thiosulfateBurette,
        "Titrate to pale yellow, add 2 mL of starch, and go on drop by drop until the blue has just gone.",
      ],
      cautions: [
        "Concentrated sulfuric acid and strong alkali: goggles and gloves; one over a tray.",
        fillBelowEyes,
        noMouth,
        labelled,
      ],
    },
  ],
  protection,
  hazards: [
    "Concentrated sulfuric acid burns deeply: drops of it, never into the hand, never water into it.",
    "The alkaline iodide is strong sodium hydroxide: corrosive to skin and eyes.",
    sulfuricHazard,
    ...iodineHazards,
    authority,
  ],
  waste: [manganeseWaste, iodineWaste],
  glassware: [
    ...thiosulfateGlassware,
    "300 mL oxygen bottles with ground stoppers",
    "200 mL one-mark pipette and filler",
    "500 mL conical flasks",
    "2 mL graduated pipettes",
  ],
});
