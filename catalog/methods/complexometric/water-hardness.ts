import { defineMethod, type TitrationStage } from "~/core/method";
import type { Input } from "~/core/inputs";
import {
  fillBelowEyes,
  labelled,
  noMouth,
  ammoniaHazard,
  edtaCautions,
  edtaWaste,
  authority,
  protection,
} from "../../parts/safety";
import { binding, edtaSubstances, ligand } from "../../parts/equations";
import { about, buffer, exactly, mL, magnesiumEdta, roughly, inWords } from "../../parts/reagents";
import { edtaBurette } from "../../parts/burette";
import { edtaGlassware } from "../../parts/glassware";
import { edtaTiter, fromStage } from "../../parts/inputs";
import { pinkToBlue, wineRedToBlue } from "../../parts/indicators";
import { calciumEquations, calciumStandard } from "./edta-by-metal";
import { notNegative } from "../../parts/plausible";

const sample: Input = { symbol: "V_s", is: "delivered", label: "Water", of: "the water", per: "trial" };
const edtaFound = fromStage("c_y", "Concentration of the EDTA", "EDTA", "standardize");
const takeWater =
  "Fill a second burette with the water and run about 25 mL into each flask; read it before and after.";

const total: TitrationStage = {
  kind: "titration",
  key: "total",
  title: "Total hardness",
  inputs: [edtaFound, sample, edtaTiter],
  relations: [
    {
      relation: `n = c_y * V * ratio(Ca^2+, ${ligand})`,
      title: "Calcium and magnesium in the flask",
      unit: "mmol",
    },
    { relation: "c_h = n / V_s", title: "Total hardness", unit: "mmol/L" },
    { relation: "γ_h = c_h * M(CaCO3)", title: "As calcium carbonate", unit: "mg/L" },
    { relation: "d_h = c_h", title: "In German degrees", unit: "°dH" },
    { relation: "f_h = c_h", title: "In French degrees", unit: "°fH" },
    { relation: "e_h = c_h", title: "In English degrees", unit: "°e" },
  ],
  result: { symbol: "c_h", name: "Total hardness", unit: "mmol/L" },
  also: [
    { symbol: "γ_h", name: "As calcium carbonate", unit: "mg/L" },
    { symbol: "d_h", name: "In degrees", unit: "°dH" },
    { symbol: "f_h", name: "In degrees", unit: "°fH" },
    { symbol: "e_h", name: "In degrees", unit: "°e" },
  ],
  plausible: [notNegative("c_h", "mmol/L")],
  agree: { on: "V / V_s", per: "V_s" },
  presumed: 9,
  expectMl: [10, 45],
  ...wineRedToBlue,
  reagents: [
    exactly("the water", roughly(mL("25")), "from a burette of its own, read before and after"),
    buffer,
    magnesiumEdta,
  ],
  conditions: [
    {
      what: "at pH 10; titrate within minutes of the buffer, before carbonate falls out",
      minutes: 5,
      counts: "within",
    },
  ],
  steps: [
    takeWater,
    "In the hood, add 5 mL of ammonia buffer and 0.5 mL of Mg-EDTA, then 3 to 5 drops of eriochrome black T: wine red.",
    ...edtaBurette,
    "Titrate through purple to sky blue with no red left; near the end a drop, then wait.",
  ],
  cautions: edtaCautions,
};

const calcium: TitrationStage = {
  kind: "titration",
  key: "calcium",
  title: "Calcium alone",
  inputs: [edtaFound, fromStage("c_h", "Total hardness", "the water", "total"), sample, edtaTiter],
  relations: [
    { relation: `n = c_y * V * ratio(Ca^2+, ${ligand})`, title: "Calcium in the flask", unit: "mmol" },
    { relation: "c_c = n / V_s", title: "Calcium in the water", unit: "mmol/L" },
    { relation: "γ_c = c_c * M(Ca)", title: "As calcium", unit: "mg/L" },
    { relation: "c_m = c_h - c_c", title: "Magnesium, by difference", unit: "mmol/L" },
    { relation: "γ_m = c_m * M(Mg)", title: "As magnesium", unit: "mg/L" },
  ],
  result: { symbol: "c_c", name: "Calcium in the water", unit: "mmol/L" },
  also: [
    { symbol: "γ_c", name: "Calcium", unit: "mg/L" },
    { symbol: "c_m", name: "Magnesium, by difference", unit: "mmol/L" },
    { symbol: "γ_m", name: "Magnesium, by difference", unit: "mg/L" },
  ],
  plausible: [{ rule: "not above", symbol: "c_c", other: "c_h", stage: "total" }],
  agree: { on: "V / V_s", per: "V_s" },
  presumed: 6,
  expectMl: [5, 30],
  ...pinkToBlue,
  reagents: [
    exactly("the water", roughly(mL("25")), "from a burette of its own, read before and after"),
    about("sodium hydroxide, 2 mol/L", mL("3"), "to pH 12 to 13: magnesium falls out"),
    about("hydroxynaphthol blue", inWords("a few grains"), "when the precipitate has formed"),
  ],
  conditions: [{ what: "let the magnesium hydroxide form, swirling", minutes: 2 }],
  steps: [
    takeWater,
    "Add about 3 mL of 2 mol/L sodium hydroxide, swirl for two minutes, check pH 12 to 13; add the indicator.",
    ...edtaBurette,
    "Titrate through violet to clear blue; a drop, then wait.",
  ],
  cautions: ["2 mol/L sodium hydroxide is corrosive: goggles and gloves.", fillBelowEyes, noMouth, labelled],
};

/** A chain: calcium carbonate fixes EDTA, EDTA finds total hardness, then calcium alone; magnesium is the difference. */
export const waterHardness = defineMethod({
  id: "water-hardness",
  version: 6,
  family: "complexometric",
  title: "Calcium, magnesium and total hardness of a water by EDTA",
  purpose:
    "Standardize the EDTA on calcium carbonate, then find total hardness at pH 10 and calcium alone at pH 12 to 13.",
  equations: [...calciumEquations, binding("Mg", "magnesium binds EDTA")],
  substances: { CaCO3: "calcium carbonate", ...edtaSubstances, "Ca^2+": "calcium", "Mg^2+": "magnesium" },
  stages: [...calciumStandard, total, calcium],
  protection: [...protection, "Fume hood for the buffer"],
  hazards: [
    ammoniaHazard,
    "Sodium hydroxide, 2 mol/L, is corrosive.",
    "Hydrochloric acid is corrosive: acid into water, never water into acid.",
    authority,
  ],
  waste: [edtaWaste],
  glassware: [...edtaGlassware, "a second 50 mL burette, for the water", "pH paper, 10 to 14"],
});
