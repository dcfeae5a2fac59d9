import type { TitrationStage } from "~/core/method";
import { redoxCautions } from "../../parts/safety";
import { purityOf, permanganateTiter, weighedSolid } from "../../parts/inputs";
import { about, exactly, g, mL } from "../../parts/reagents";
import { iron } from "../../parts/equations";
import { permanganateBurette } from "../../parts/burette";
import { selfIndicating } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** Permanganate against iron(II) weighed into each flask. */
export const permanganateByIronStage: TitrationStage = {
  kind: "titration",
  key: "standardize",
  title: "Standardize the permanganate",
  inputs: [
    weighedSolid(iron, "Mass of the iron(II) salt", [0.6, 0.8]),
    purityOf(iron, "Purity of the iron(II) salt", "99.5", "0.3"),
    permanganateTiter,
  ],
  relations: [
    { relation: `n_s = m * P / M(${iron})`, title: "Iron(II) in the flask", unit: "mmol" },
    { relation: "n_p = n_s * ratio(MnO4-, Fe^2+)", title: "Permanganate it takes", unit: "mmol" },
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
  expectMl: [15, 21],
  ...selfIndicating,
  reagents: [
    exactly("ammonium iron(II) sulfate hexahydrate", g("0.6", "0.8"), "weighed into each flask"),
    about("sulfuric acid, 1 mol/L", mL("25"), "to dissolve the salt"),
    about("phosphoric acid, 85 %", mL("5"), "before the titration, to take away the yellow of iron(III)"),
  ],
  conditions: [
    { what: "titrate soon after dissolving: air oxidizes iron(II)", minutes: 15, counts: "within" },
    { what: "at room temperature", celsius: [15, 30] },
  ],
  steps: [
    "Weigh 0.6 to 0.8 g of the salt by difference into a flask.",
    "Dissolve it in about 25 mL of 1 mol/L sulfuric acid and 50 mL of water; add 5 mL of phosphoric acid.",
    ...permanganateBurette,
    "Titrate at once, swirling, to the faintest pink.",
  ],
  cautions: redoxCautions,
};
