import type { Input } from "~/core/inputs";
import { defineMethod, type IsothermStage, type TitrationStage } from "~/core/method";
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
const bottle = (
  number: number,
  takenMl: number,
  aliquot: "10.00" | "25.00",
  presumed: number,
): TitrationStage => ({
  kind: "titration",
  key: `bottle-${number}`,
  title: `Bottle ${number}`,
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
    { relation: "a = c_0 * V_0 / m", title: "Acid put in for each gram", unit: "mmol/g" },
    { relation: "v = V_t / m", title: "Solution for each gram", unit: "mL/g" },
  ],
  result: { symbol: "c_e", name: `Equilibrium concentration, bottle ${number}`, unit: "mol/L" },
  also: [
    { symbol: "q", name: "Taken up by a gram of charcoal", unit: "mmol/g" },
    { symbol: "x", name: "Taken up by a gram of charcoal", unit: "mg/g" },
    { symbol: "a", name: "Acid put in for each gram", unit: "mmol/g" },
    { symbol: "v", name: "Solution for each gram", unit: "mL/g" },
  ],
  plausible: [notNegative("q", "mmol/g"), { rule: "not above", symbol: "c_e", other: "c_0" }],
  agree: { on: "V / V_a", per: "V_a" },
  presumed,
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

/** Start acid in each bottle, mL, and about what is left in it at equilibrium, mol/L: 3 mmol/g at 1 mol/L, by Freundlich with 1/n = 0.4. */
const bottles = [
  [50, 0.456],
  [40, 0.36],
  [30, 0.2647],
  [20, 0.1705],
  [10, 0.0783],
] as const;

const taken = (i: number, symbol: string, label: string, result?: string): Input => ({
  symbol: `${symbol}_${i + 1}`,
  is: "result",
  label: `${label}, bottle ${i + 1}`,
  of: "CH3COOH",
  per: "run",
  stage: `bottle-${i + 1}`,
  ...(result === undefined ? {} : { result }),
});

/** Both laws through the five bottles. What a gram took up is computed anew from what shares the titer, so that its error counts once. */
const isotherm: IsothermStage = {
  kind: "isotherm",
  key: "isotherm",
  title: "Isotherm",
  inputs: [
    ...bottles.flatMap((_, i) => [
      taken(i, "c", "At equilibrium"),
      taken(i, "a", "Acid put in for each gram", "a"),
      taken(i, "v", "Solution for each gram", "v"),
    ]),
    {
      symbol: "c_r",
      is: "constant",
      label: "Concentration at which uptakes are compared",
      value: "0.1000",
      unit: "mol/L",
      plusMinus: "0",
    },
  ],
  relations: [
    ...bottles.map((_, i) => ({
      relation: `q_${i + 1} = a_${i + 1} - c_${i + 1} * v_${i + 1}`,
      title: `Taken up by a gram, bottle ${i + 1}`,
      unit: "mmol/g",
    })),
    { relation: "x_r = q_r * M(CH3COOH)", title: "The same as a mass", unit: "mg/g" },
  ],
  result: { symbol: "q_r", name: "Taken up by a gram at 0.1 mol/L, by the better law", unit: "mmol/g" },
  also: [
    { symbol: "x_r", name: "The same as a mass", unit: "mg/g" },
    { symbol: "K", name: "Freundlich, K: at 1 mol/L", unit: "mmol/g" },
    { symbol: "e", name: "Freundlich, 1/n", unit: "1" },
    { symbol: "q_m", name: "Langmuir, capacity", unit: "mmol/g" },
    { symbol: "b", name: "Langmuir, b", unit: "L/mol" },
  ],
  plausible: [notNegative("q_r", "mmol/g")],
  presumed: 1.194,
  isotherm: {
    bottles: bottles.map((_, i) => ({
      name: `Bottle ${i + 1}`,
      concentration: `c_${i + 1}`,
      uptake: `q_${i + 1}`,
    })),
    freundlich: ["K", "e"],
    langmuir: ["q_m", "b"],
    at: "c_r",
    predicted: "q_r",
  },
  steps: [
    "Compare both laws with the bottles: on one plot, and as straight lines.",
    "Look again at a bottle that lies off: repeat its titration before it is left out.",
  ],
  cautions: ["Wet charcoal dries out and then burns: into its own waste, not into the bin."],
};

/** What charcoal takes up of acetic acid at five concentrations: the titrations. */
export const aceticAcidOnCharcoal = defineMethod({
  id: "acetic-acid-on-charcoal",
  version: 6,
  family: "acid-base",
  title: "Acetic acid on charcoal: the isotherm",
  purpose:
    "How much acetic acid a gram of charcoal takes up at each of five concentrations, and whether Freundlich’s law or Langmuir’s describes it.",
  equations: [{ name: "neutralization", equation: "CH3COOH + NaOH -> CH3COONa + H2O" }],
  substances: { CH3COOH: "acetic acid", NaOH: "sodium hydroxide" },
  stages: [
    start,
    ...bottles.map(([ml, left], i) => bottle(i + 1, ml, ml === 10 ? "25.00" : "10.00", left)),
    isotherm,
  ],
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
