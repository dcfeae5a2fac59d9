import { defineMethod } from "~/core/method";
import {
  acidHazard,
  authority,
  baseHazards,
  fillBelowEyes,
  labelled,
  neutralWaste,
  noMouth,
  protection,
} from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { exactly, indicatorReagent, mL, inWords } from "../../parts/reagents";
import { knownBase, knownConcentration, pipetted, titer } from "../../parts/inputs";
import { phenolphthalein } from "../../parts/indicators";
import { atMost, mostMolPerL } from "../../parts/plausible";

/** Dilute a stock to a target, and check by titration what came of it. */
export const diluteAndCheckAcid = defineMethod({
  id: "dilute-and-check",
  version: 6,
  family: "acid-base",
  title: "Dilute an acid to a target, and check it",
  purpose:
    "Make a solution of a given concentration from a stock, and decide by titration whether it will do.",
  equations: [{ name: "neutralization", equation: "HCl + NaOH -> NaCl + H2O" }],
  substances: { HCl: "hydrochloric acid", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "preparation",
      key: "dilute",
      title: "Make the dilution",
      inputs: [
        { symbol: "c_t", is: "given", label: "Target", per: "run", unit: "mol/L", usual: "0.2", exact: true },
        knownConcentration("c_0", "Concentration of the stock", "HCl", "0.500", "0.002"),
        {
          symbol: "V_e",
          is: "graduated",
          glass: "cylinder",
          label: "Made up to",
          of: "HCl",
          per: "run",
          capacityMl: 50,
          presumed: "25.0",
        },
        { symbol: "V_0", is: "delivered", label: "Stock from a burette", of: "HCl", per: "run" },
      ],
      relations: [
        { relation: "n = c_0 * V_0", title: "Amount of acid taken", unit: "mmol" },
        { relation: "c_m = n / V_e", title: "Concentration made", unit: "mol/L" },
      ],
      result: { symbol: "c_m", name: "Concentration made", unit: "mol/L" },
      also: [{ symbol: "c_t", name: "Target", unit: "mol/L" }],
      aim: { symbol: "c_m", at: "c_t", by: "V_0", within: "V_e" },
      plausible: [{ rule: "not above", symbol: "c_m", other: "c_0" }],
      reagents: [
        exactly("the stock", inWords("as computed"), "from a burette into the cylinder"),
        exactly("water", inWords("to the volume"), "half of it before the stock"),
      ],
      steps: [
        "Type the target; say how strong the stock is, and what you make it up to.",
        "Read the burette of the stock; the volume to take, and where to stop, stand above the readings.",
        "Put about half of the water into the cylinder, then the stock from the burette, then water to the volume.",
        "Pour it to and fro with a dry beaker to mix; label the beaker and keep what is left.",
      ],
      cautions: ["Goggles on.", "Acid into water, never water into acid.", labelled],
    },
    {
      kind: "titration",
      key: "check",
      title: "Check by titration",
      inputs: [
        {
          symbol: "c_t",
          is: "result",
          label: "Target",
          of: "HCl",
          per: "run",
          stage: "dilute",
          result: "c_t",
        },
        knownBase,
        pipetted("HCl", "Aliquot of the dilution", "10.00"),
        titer("NaOH"),
      ],
      relations: [
        { relation: "n_a = c_b * V * ratio(HCl, NaOH)", title: "Acid in the aliquot", unit: "mmol" },
        { relation: "c = n_a / V_a", title: "Concentration found", unit: "mol/L" },
      ],
      result: { symbol: "c", name: "Concentration found", unit: "mol/L" },
      plausible: [atMost("c", mostMolPerL.HCl)],
      agree: { on: "V / V_a", per: "V_a" },
      accept: { against: "value", symbol: "c_t", tolerancePercent: 5, whenOff: "dilution" },
      expectedFrom: { stage: "dilute" },
      presumed: 0.2,
      expectMl: [15, 30],
      ...phenolphthalein,
      reagents: [
        exactly("the dilution", mL("10.00"), "into the flask: of this solution, not of the stock", "V_a"),
        indicatorReagent,
      ],
      steps: [
        "[take V_a] of the dilution, not of the stock, into a flask; add phenolphthalein.",
        ...buretteSteps("base"),
        "Within 5 %, the dilution is done. If not, titrate what was kept again; if it is still off, make a new one: the old one stays on record.",
      ],
      cautions: ["Goggles on: acid and base both harm the eyes.", fillBelowEyes, noMouth],
    },
  ],
  protection,
  hazards: [...baseHazards, acidHazard, authority],
  waste: [neutralWaste],
  glassware: [
    "two 50 mL burettes",
    "50 mL measuring cylinder",
    "10 mL one-mark pipette and filler",
    "250 mL conical flasks",
  ],
});
