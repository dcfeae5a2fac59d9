import { defineMethod } from "~/core/method";
import {
  authority,
  baseHazards,
  fillBelowEyes,
  labelled,
  neutralWaste,
  protection,
} from "../../parts/safety";
import { buretteSteps } from "../../parts/burette";
import { titer, knownBase, weighedSolid } from "../../parts/inputs";
import { about, drops, exactly, g, mL } from "../../parts/reagents";

/** A weak acid followed with a pH meter: equivalent mass from the step, pKa from the pH at half of it. */
export const weakAcidByPhMeter = defineMethod({
  id: "weak-acid-by-ph-meter",
  version: 3,
  family: "acid-base",
  title: "Weak acid with a pH meter: equivalent mass and pKa",
  purpose:
    "Follow the pH of a weak acid while base is added, take the equivalence point where a drop changes it most, and read pKa at half of it.",
  equations: [{ name: "neutralization", equation: "HC8H7O3 + NaOH -> NaC8H7O3 + H2O" }],
  substances: { HC8H7O3: "mandelic acid, as an example", NaOH: "sodium hydroxide" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the acid",
      inputs: [
        knownBase,
        {
          symbol: "z",
          is: "given",
          label: "Protons that this step stands for",
          per: "run",
          unit: "1",
          presumed: { value: "1", plusMinus: "0" },
          exact: true,
        },
        weighedSolid("the acid", "Mass of acid", [0.2, 0.5]),
        titer("NaOH"),
        { symbol: "pH_h", is: "pH", label: "pH at half of it", per: "trial", plusMinus: "0.05" },
      ],
      relations: [
        { relation: "n_b = c_b * V", title: "Base to the equivalence point", unit: "mmol" },
        { relation: "M_e = m / n_b", title: "Equivalent mass: of one mole of protons", unit: "g/mol" },
        { relation: "M_a = z * M_e", title: "Molar mass", unit: "g/mol" },
        { relation: "pK_a = pH_h", title: "pKa, where half is neutralized", unit: "1" },
      ],
      result: { symbol: "M_e", name: "Equivalent mass of the acid", unit: "g/mol" },
      also: [
        { symbol: "M_a", name: "Molar mass of the acid", unit: "g/mol" },
        {
          symbol: "pK_a",
          name: "pKa of the acid",
          unit: "1",
          when: {
            symbol: "z",
            is: 1,
            otherwise:
              "half of a step that stands for several protons is a mean of their pKa values, and none of them",
          },
        },
      ],
      plausible: [
        { rule: "between", symbol: "M_e", from: 40, unit: "g/mol" },
        { rule: "between", symbol: "pK_a", from: 0, to: 14, unit: "1" },
      ],
      agree: { on: "V / m", per: "m" },
      presumed: 152,
      expectMl: [13, 34],
      indicator: "pH meter, calibrated at pH 4, 7 and 10",
      persistence: "A reading counts when it has stopped drifting. Go on past the end, to pH 11 or so.",
      meniscus: "bottom",
      ribbon: [
        { color: "#eef1ee", looks: "pH hardly changes", do: "1 mL at a time" },
        { color: "#dfe7e4", looks: "pH begins to climb", do: "0.2 mL, then single drops" },
        { color: "#f2aac9", looks: "largest change for one drop", do: "this is the end", end: true },
        { color: "#cfd8d5", looks: "pH flattens again", do: "1 mL at a time, to pH 11" },
      ],
      reagents: [
        exactly("the acid, dry", g("0.2", "0.5"), "weighed into each beaker"),
        about("water", mL("100"), "to dissolve it and cover the electrode"),
        about("phenolphthalein", drops("2"), "to see how far its end lies from the step"),
      ],
      conditions: [{ what: "at one temperature, stirred", celsius: [18, 28] }],
      steps: [
        "Calibrate the meter with fresh buffers at pH 4, 7 and 10; rinse and dab the electrode between them.",
        "Weigh 0.2 to 0.5 g of the acid by difference into a beaker; dissolve it in about 100 mL of water; the stirrer clear of the electrode.",
        ...buretteSteps("base"),
        "Write pH against volume: 1 mL at a time on the flat, single drops near the step, on to pH 11.",
        "The equivalence point is between the two drops with the largest change of pH: its reading is the final one here.",
        "Read the pH at half of that volume off the list: it is pKa.",
      ],
      cautions: [
        "Goggles on: sodium hydroxide harms the eyes.",
        "One step may stand for two protons when their pKa are close.",
        fillBelowEyes,
        labelled,
      ],
    },
  ],
  protection,
  hazards: [...baseHazards, authority],
  waste: [neutralWaste],
  glassware: [
    "50 mL burette",
    "pH meter with electrode",
    "buffers pH 4, 7 and 10",
    "stirrer",
    "250 mL beakers",
    "weighing boats",
    "balance reading to 0.1 mg",
  ],
});
