import { defineMethod, type TitrationStage } from "~/core/method";
import {
  authority,
  baseHazards,
  fillBelowEyes,
  labelled,
  neutralWaste,
  noMouth,
  protection,
} from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { exactly, g, indicatorReagent, mL } from "../../parts/reagents";
import { knownBase, pipetted, titer } from "../../parts/inputs";
import { phenolphthalein } from "../../parts/indicators";
import { atMost, mostMolPerL, notNegative } from "../../parts/plausible";
import { densityOf } from "../../densities";

const cautions = ["Goggles on: acid and base both harm the eyes.", fillBelowEyes, noMouth, labelled];
const filtrate = "NaOH";

const start: TitrationStage = {
  kind: "titration",
  key: "start",
  title: "Titrate the start acid",
  inputs: [knownBase, pipetted("CH3COOH", "Aliquot of the start acid", "5.00"), titer(filtrate)],
  relations: [
    { relation: "n = c_b * V * ratio(CH3COOH, NaOH)", title: "Acid in the aliquot", unit: "mmol" },
    { relation: "c_0 = n / V_a", title: "Concentration of the start acid", unit: "mol/L" },
  ],
  result: {
    symbol: "c_0",
    name: "Concentration of the start acid",
    unit: "mol/L",
    assigns: "CH3COOH",
    equivalents: 1,
  },
  also: [{ symbol: "c_b", name: "Concentration of the base", unit: "mol/L" }],
  plausible: [atMost("c_0", mostMolPerL.CH3COOH)],
  agree: { on: "V / V_a", per: "V_a" },
  presumed: 0.5,
  expectMl: [20, 30],
  ...phenolphthalein,
  reagents: [exactly("the start acid", mL("5.00"), "into each flask"), indicatorReagent],
  steps: ["Pipette 5.00 mL of the start acid into a flask; add the indicator.", ...buretteSteps("base")],
  cautions,
};

/**
 * One bottle: so many mL of the start acid made to 50 mL, a gram of charcoal, the filtrate titrated. The weakest acid takes a larger
 * aliquot, so that its titer fills enough of the burette.
 */
const bottle = (number: number, takenMl: number, aliquot: "10.00" | "25.00"): TitrationStage => ({
  kind: "titration",
  key: `bottle-${number}`,
  title: `Bottle ${number}: ${takenMl} mL of acid`,
  inputs: [
    {
      symbol: "c_0",
      is: "result",
      label: "Concentration of the start acid",
      of: "CH3COOH",
      per: "run",
      stage: "start",
    },
    {
      symbol: "c_b",
      is: "result",
      label: "Concentration of the base",
      of: "NaOH",
      per: "run",
      stage: "start",
      result: "c_b",
    },
    {
      symbol: "V_0",
      is: "graduated",
      glass: "cylinder",
      label: "Start acid in the bottle",
      of: "CH3COOH",
      per: "run",
      capacityMl: 50,
      presumed: takenMl.toFixed(1),
    },
    {
      symbol: "V_t",
      is: "graduated",
      glass: "cylinder",
      label: "Made up to",
      of: "CH3COOH",
      per: "run",
      capacityMl: 50,
      presumed: "50.0",
    },
    {
      symbol: "m",
      is: "mass",
      weighing: "tared",
      label: "Charcoal",
      of: "charcoal",
      per: "run",
      expect: [0.9, 1.1],
      ...densityOf("charcoal"),
    },
    pipetted("the filtrate", "Aliquot of the filtrate", aliquot),
    titer(filtrate),
  ],
  relations: [
    { relation: "c_e = c_b * V * ratio(CH3COOH, NaOH) / V_a", title: "At equilibrium", unit: "mol/L" },
    { relation: "n_x = (c_0 * V_0 / V_t - c_e) * V_t", title: "Taken up by the charcoal", unit: "mmol" },
    { relation: "q = n_x / m", title: "Taken up by a gram", unit: "mmol/g" },
    { relation: "x = q * M(CH3COOH)", title: "The same as a mass", unit: "mg/g" },
  ],
  result: { symbol: "c_e", name: `Equilibrium concentration, bottle ${number}`, unit: "mol/L" },
  also: [
    { symbol: "q", name: "Taken up by a gram of charcoal", unit: "mmol/g" },
    { symbol: "x", name: "Taken up by a gram of charcoal", unit: "mg/g" },
  ],
  plausible: [notNegative("q", "mmol/g"), { rule: "not above", symbol: "c_e", other: "c_0" }],
  agree: { on: "V / V_a", per: "V_a" },
  presumed: (0.45 * takenMl) / 50,
  expectMl: [Math.round(0.06 * takenMl * Number(aliquot)), 0.1 * takenMl * Number(aliquot)],
  ...phenolphthalein,
  reagents: [
    exactly("the start acid", mL(String(takenMl)), "into the bottle, made to 50 mL with water"),
    exactly("charcoal", g("1"), "weighed, into the bottle"),
    exactly("the filtrate", mL(aliquot), "into each flask"),
    indicatorReagent,
  ],
  conditions: [{ what: "shake, then let it stand with shaking now and then", minutes: 30, strict: true }],
  steps: [
    `Measure ${takenMl} mL of the start acid into bottle ${number}, make it to 50 mL with water, add 1 g of charcoal, note its mass.`,
    "Stopper, shake, wait 30 min with shaking now and then; filter through dry paper, reject the first drops.",
    `Pipette ${aliquot} mL of the filtrate into a flask; add the indicator.`,
    ...buretteSteps("base"),
  ],
  cautions: [...cautions, "Charcoal dust: no draft, no flame."],
});

/** What charcoal takes up of acetic acid at five concentrations: the titrations. */
export const aceticAcidOnCharcoal = defineMethod({
  id: "acetic-acid-on-charcoal",
  version: 5,
  family: "acid-base",
  title: "Acetic acid on charcoal, titrated",
  purpose: "How much acetic acid a gram of charcoal takes up at each of five concentrations.",
  equations: [{ name: "neutralization", equation: "CH3COOH + NaOH -> CH3COONa + H2O" }],
  substances: { CH3COOH: "acetic acid", NaOH: "sodium hydroxide" },
  stages: [start, ...[50, 40, 30, 20, 10].map((ml, i) => bottle(i + 1, ml, ml === 10 ? "25.00" : "10.00"))],
  protection,
  hazards: [
    ...baseHazards,
    "Acetic acid of 0.5 mol/L irritates.",
    "Charcoal dust burns: no flame.",
    authority,
  ],
  waste: [neutralWaste, "Charcoal: dried, to the solid waste."],
  glassware: [
    "50 mL burette",
    "5 mL, 10 mL and 25 mL one-mark pipettes and filler",
    "50 mL cylinder",
    "five 100 mL bottles with stoppers",
    "funnels and dry filter paper",
    "250 mL conical flasks",
    "balance reading to 0.1 mg",
  ],
});
