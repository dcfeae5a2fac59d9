import { defineMethod } from "~/core/method";
import { authority, manganeseWaste, permanganateHazards, protection } from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import {
  curveGlass,
  curveInput,
  electrodeCautions,
  oneEnd,
  stirred,
  takePoints,
  waterFor,
} from "../../parts/curves";
import { knownPermanganate, pipetted } from "../../parts/inputs";
import { about, exactly, mL } from "../../parts/reagents";

/** Iron(II) by permanganate, followed at a platinum electrode. */
export const ironByPotential = defineMethod({
  id: "iron-by-potential",
  version: 1,
  family: "redox",
  title: "Iron(II) by permanganate, followed in mV",
  purpose:
    "Find iron(II) by permanganate: the potential of a platinum electrode jumps when no iron(II) is left.",
  equations: [{ name: "oxidation", equation: "5 Fe^2+ + MnO4^- + 8 H^+ -> 5 Fe^3+ + Mn^2+ + 4 H2O" }],
  substances: { "Fe^2+": "iron(II)", "MnO4^-": "permanganate" },
  stages: [
    {
      kind: "curve",
      key: "determine",
      title: "Take the curve",
      inputs: [
        knownPermanganate,
        pipetted("the iron solution", "Iron solution taken", "25.00", "V_i"),
        curveInput("KMnO4", "mV", "2"),
      ],
      relations: [
        { relation: "n_i = c_p * V * ratio(Fe^2+, MnO4^-)", title: "Iron(II) in the beaker", unit: "mmol" },
        { relation: "c_i = n_i / V_i", title: "Iron(II) in the solution", unit: "mol/L" },
        { relation: "w_i = c_i * M(Fe)", title: "The same as a mass", unit: "g/L" },
      ],
      result: { symbol: "c_i", name: "Iron(II) in the solution", unit: "mol/L" },
      also: [{ symbol: "w_i", name: "The same as a mass", unit: "g/L" }],
      plausible: [{ rule: "between", symbol: "c_i", from: 0, unit: "mol/L" }],
      presumed: 0.06,
      curve: {
        titrant: { symbol: "c_p", usual: 0.02 },
        flaskMl: 100,
        ends: oneEnd,
        until: 1150,
        largestMl: 2,
        theory: {
          is: "redox",
          reductant: { volts: 0.68, electrons: 1, protons: 0, reduced: 1 },
          oxidant: { volts: 1.51, electrons: 5, protons: 8, reduced: 1 },
          pH: 0.3,
          referenceV: 0.197,
        },
      },
      reagents: [
        exactly("the iron solution", mL("25"), "into each beaker", "V_i"),
        about("sulfuric acid, 1 mol/L", mL("50"), "before the titration"),
        waterFor("25", "to cover the electrodes"),
      ],
      conditions: stirred,
      steps: [
        "Heat the platinum electrode in a flame until it glows, let it cool; the reference electrode beside it.",
        "[take V_i] of the iron solution into a beaker; 50 mL of 1 mol/L sulfuric acid, about 25 mL of water.",
        ...buretteSteps("permanganate"),
        takePoints,
        "Single drops near the jump: it is steep. Go on past it, to 1150 mV or so.",
      ],
      cautions: electrodeCautions("Goggles and gloves on: the acid burns, permanganate stains."),
    },
  ],
  protection,
  hazards: [...permanganateHazards, authority],
  waste: [manganeseWaste],
  glassware: [...curveGlass, "mV meter", "platinum electrode", "reference electrode", "25 mL pipette"],
});
