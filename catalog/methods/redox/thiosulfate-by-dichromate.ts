import { defineMethod } from "~/core/method";
import { authority, protection, iodineHazards, iodineWaste } from "../../parts/safety";
import { about, mL } from "../../parts/reagents";
import { iodineThiosulfate } from "../../parts/equations";
import { thiosulfateGlassware } from "../../parts/glassware";
import { thiosulfateStages } from "./thiosulfate-stages";

/** Thiosulfate by dichromate: six electrons, three iodine, six thiosulfate. */
export const thiosulfateByDichromate = defineMethod({
  id: "thiosulfate-by-dichromate",
  version: 4,
  family: "redox",
  title: "Thiosulfate by dichromate",
  purpose: "Fix the concentration of a thiosulfate solution against weighed dichromate.",
  variant: { of: "thiosulfate-by-iodate", differs: "dichromate instead of iodate; it must stand 5 min" },
  equations: [
    {
      name: "dichromate sets iodine free",
      equation: "K2Cr2O7 + 6 I- + 14 H+ -> 2 K+ + 2 Cr^3+ + 3 I2 + 7 H2O",
    },
    iodineThiosulfate,
  ],
  substances: { Na2S2O3: "sodium thiosulfate", K2Cr2O7: "potassium dichromate" },
  stages: [
    ...thiosulfateStages({
      formula: "K2Cr2O7",
      name: "dichromate",
      species: "K2Cr2O7",
      grams: [1.15, 1.3],
      presumedMolPerL: 0.1,
      expectMl: [20, 30],
      dry: "dried at 140 °C",
      acid: about("hydrochloric acid, 4 mol/L", mL("10"), "after the iodide"),
      wait: "stoppered, in the dark",
    }),
  ],
  protection,
  hazards: [
    "Chromium(VI) is toxic, harms the skin and causes cancer: gloves, no dust, no spills left.",
    "Hydrochloric acid is corrosive: acid into water, never water into acid.",
    ...iodineHazards,
    authority,
  ],
  waste: ["Every flask and every rinse to the chromium waste.", iodineWaste],
  glassware: thiosulfateGlassware,
});
