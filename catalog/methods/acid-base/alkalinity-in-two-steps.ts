import { defineMethod, type TitrationStage } from "~/core/method";
import { alkalinityOfWater } from "./alkalinity-of-water";
import { buretteSteps } from "../../parts/burette";
import { fillBelowEyes, labelled, noMouth } from "../../parts/safety";
import { fromStage, pipetted, titer } from "../../parts/inputs";
import { exactly, indicatorReagent, mL } from "../../parts/reagents";
import { ribbons } from "../../parts/indicators";
import { notNegative } from "../../parts/plausible";

const phenolphthaleinStage: TitrationStage = {
  kind: "titration",
  key: "phenolphthalein",
  title: "To pH 8.3, with phenolphthalein",
  inputs: [
    fromStage("c_d", "Concentration of the diluted acid", "HCl", "dilute"),
    pipetted("the water", "Water taken", "100.00", "V_w"),
    titer("HCl"),
  ],
  relations: [
    { relation: "n_p = c_d * V", title: "Acid taken up above pH 8.3", unit: "mmol" },
    { relation: "A_p = n_p * ratio(CO3^2-, HCl) / V_w", title: "Phenolphthalein alkalinity", unit: "mmol/L" },
    { relation: "A_pe = A_p", title: "In equivalents", unit: "meq/L" },
  ],
  result: { symbol: "A_p", name: "Phenolphthalein alkalinity", unit: "mmol/L" },
  also: [{ symbol: "A_pe", name: "In equivalents", unit: "meq/L" }],
  plausible: [notNegative("A_p", "mmol/L")],
  agree: { on: "V / V_w", per: "V_w" },
  presumed: 2.2,
  expectMl: [2, 25],
  indicator: "phenolphthalein, 2 to 3 drops",
  persistence:
    "The pink must just go and stay away. A water that is not pink has none: go on to the next stage.",
  meniscus: "bottom",
  ribbon: ribbons.pinkToColorless,
  reagents: [exactly("the water", mL("100.00"), "into each flask", "V_w"), indicatorReagent],
  conditions: [
    { what: "soon and without shaking: the water takes up carbon dioxide", minutes: 5, counts: "within" },
  ],
  steps: [
    "Fill the sample bottle to the brim and keep it shut until it is used.",
    "[take V_w] of the water into a flask; add 2 to 3 drops of phenolphthalein: pink above pH 8.3.",
    ...buretteSteps("diluted acid"),
    "Titrate slowly, swirling gently, until the pink has just gone.",
  ],
  cautions: ["Goggles on: the acid harms the eyes.", fillBelowEyes, noMouth, labelled],
};

const [standardize, dilute, ...others] = alkalinityOfWater.stages;

/** What is taken up to pH 4.5 holds what was taken up to pH 8.3. A water above pH 8.3 takes more than others do. */
const rest = others.map((stage): (typeof others)[number] =>
  stage.kind === "titration"
    ? {
        ...stage,
        presumed: 5.5,
        plausible: [
          ...(stage.plausible ?? []),
          { rule: "not below", symbol: stage.result.symbol, other: "A_p", stage: "phenolphthalein" },
        ],
      }
    : stage,
);

/** Alkalinity of a water above pH 8.3: what phenolphthalein shows first, then all of it. */
export const alkalinityInTwoSteps = defineMethod({
  ...alkalinityOfWater,
  id: "alkalinity-in-two-steps",
  title: "Alkalinity of a water above pH 8.3, in two steps",
  purpose: "How much acid a water can take up to pH 8.3, and to about 4.5.",
  variant: {
    of: alkalinityOfWater.id,
    differs: "for water above pH 8.3: phenolphthalein first, in flasks of its own",
  },
  equations: [
    ...alkalinityOfWater.equations,
    { name: "above pH 8.3", equation: "CO3^2- + HCl -> HCO3- + Cl-" },
  ],
  substances: { ...alkalinityOfWater.substances, "CO3^2-": "carbonate" },
  stages: [...[standardize, dilute].flatMap((stage) => stage ?? []), phenolphthaleinStage, ...rest],
});
