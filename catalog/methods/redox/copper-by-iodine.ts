import { defineMethod } from "~/core/method";
import { authority, protection, iodineCautions, iodineHazards, iodineWaste } from "../../parts/safety";
import { titer, knownThiosulfate, weighedSolid } from "../../parts/inputs";
import { about, atLast, exactly, g, mL } from "../../parts/reagents";
import { iodineThiosulfate } from "../../parts/equations";
import { starchToCream } from "../../parts/indicators";
import { thiosulfateBurette } from "../../parts/burette";
import { atMostAll } from "../../parts/plausible";

/** Copper in a salt: two copper set one iodine free, copper(I) iodide falls out. */
export const copperByIodine = defineMethod({
  id: "copper-by-iodine",
  version: 4,
  family: "redox",
  title: "Copper in a salt, by iodine and thiosulfate",
  purpose: "The mass fraction of copper in a copper(II) salt.",
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
        weighedSolid("the copper salt", "Mass of the salt", [0.5, 0.8]),
        titer("Na2S2O3"),
      ],
      relations: [
        { relation: "n = c_t * V * ratio(Cu^2+, S2O3^2-)", title: "Copper in the flask", unit: "mmol" },
        { relation: "w = n * M(Cu) / m", title: "Copper in the salt", unit: "% w/w" },
      ],
      result: { symbol: "w", name: "Copper in the salt", unit: "% w/w" },
      // Of the salts that are met, anhydrous copper(II) chloride holds most.
      plausible: [atMostAll("w", "M(Cu) / M(CuCl2)", "anhydrous copper(II) chloride")],
      agree: { on: "V / m", per: "m" },
      presumed: 25,
      expectMl: [19, 33],
      ...starchToCream,
      reagents: [
        exactly("the copper salt", g("0.5", "0.8"), "weighed into each flask"),
        about("acetic acid, 4 mol/L", mL("5"), "to dissolve it"),
        atLast("potassium iodide", g("2"), "just before the titration, one flask at a time"),
        atLast("starch, 1 %", mL("2"), "when the flask is pale yellow"),
        atLast("ammonium thiocyanate", g("1"), "near the end: it sets adsorbed iodine free"),
      ],
      steps: [
        "Weigh 0.5 to 0.8 g of the salt by difference into a flask; dissolve it in 50 mL of water with 5 mL of acetic acid.",
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
  glassware: ["50 mL burette", "250 mL conical flasks", "weighing boats", "balance reading to 0.1 mg"],
});
