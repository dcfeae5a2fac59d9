import { defineMethod } from "~/core/method";
import { authority, protection, iodineCautions, iodineHazards, iodineWaste } from "../../parts/safety";
import { flaskOnce, knownThiosulfate, pipetted, titer } from "../../parts/inputs";
import { about, atLast, exactly, g, mL } from "../../parts/reagents";
import { iodineThiosulfate } from "../../parts/equations";
import { starchToCream } from "../../parts/indicators";
import { thiosulfateBurette } from "../../parts/burette";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** Copper that is handed out by volume, made up to the mark; the mass in the whole. */
export const copperInSolution = defineMethod({
  id: "copper-in-solution",
  version: 2,
  family: "redox",
  title: "Copper in a solution, by iodine and thiosulfate",
  purpose: "The mass of copper in the whole of a solution that was handed out by volume.",
  variant: {
    of: "copper-by-iodine",
    differs: "the copper is handed out as a solution, made up to the mark; aliquots are titrated",
  },
  equations: [
    { name: "copper sets iodine free", equation: "2 Cu^2+ + 4 I- -> 2 CuI + I2" },
    iodineThiosulfate,
  ],
  substances: { "Cu^2+": "copper(II)", Na2S2O3: "sodium thiosulfate" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the copper",
      inputs: [
        knownThiosulfate,
        flaskOnce("the copper solution", "250.0", "V_f", "Flask that holds the whole"),
        pipetted("the copper solution", "Aliquot of the copper solution", "25.00"),
        titer("Na2S2O3"),
      ],
      relations: [
        { relation: "n_a = c_t * V * ratio(Cu^2+, S2O3^2-)", title: "Copper in the aliquot", unit: "mmol" },
        { relation: "n_f = n_a * V_f / V_a", title: "Copper in the whole flask", unit: "mmol" },
        { relation: "m_f = n_f * M(Cu)", title: "Mass of copper in the whole", unit: "g" },
        { relation: "c_f = n_a / V_a", title: "Concentration of copper", unit: "mol/L" },
      ],
      result: { symbol: "m_f", name: "Mass of copper in the whole", unit: "g" },
      also: [{ symbol: "c_f", name: "Concentration of copper", unit: "mol/L" }],
      plausible: [atMost("c_f", mostMolPerL.metal)],
      agree: { on: "V / V_a", per: "V_a" },
      presumed: 1.6,
      expectMl: [15, 33],
      ...starchToCream,
      reagents: [
        exactly("the copper solution, made up to the mark", mL("25.00"), "into each flask", "V_a"),
        about("acetic acid, 4 mol/L", mL("5"), "before the iodide"),
        atLast("potassium iodide", g("2"), "just before the titration, one flask at a time"),
        atLast("starch, 1 %", mL("2"), "when the flask is pale yellow"),
        atLast("ammonium thiocyanate", g("1"), "near the end: it sets adsorbed iodine free"),
      ],
      steps: [
        "Rinse all of the solution that was handed out into a 250 mL flask; make up to the mark, invert to mix.",
        "[take V_a] into a flask; add 5 mL of acetic acid.",
        "Add about 2 g of potassium iodide; the flask turns brown and cloudy.",
        ...thiosulfateBurette,
        "Titrate to pale yellow, add starch; near the end 1 g of thiocyanate; then to cream with no blue.",
      ],
      cautions: iodineCautions,
    },
  ],
  protection,
  hazards: ["Copper salts harm water life and are harmful if swallowed.", ...iodineHazards, authority],
  waste: ["Flasks hold copper: to the heavy-metal waste.", iodineWaste],
  glassware: [
    "50 mL burette",
    "25 mL one-mark pipette and filler",
    "250 mL volumetric flask",
    "250 mL conical flasks",
  ],
});
