import { defineMethod } from "~/core/method";
import {
  absorbance,
  blank,
  chooseWavelength,
  colorimetricGlassware,
  cuvetteSteps,
  driftStep,
  readOff,
  standardFlask,
  straight,
} from "../../parts/photometer";
import { authority, protection } from "../../parts/safety";
import { about, drops, exactly, mL, series } from "../../parts/reagents";
import { atMostAll, notNegative } from "../../parts/plausible";
import { densityOf } from "../../densities";

const dichromate = exactly("acid dichromate, 0.25 mol/L", mL("10"), "the same in every flask, by pipette");

/** Ethanol by the green that it makes of orange dichromate; standards are counted in drops. */
export const ethanolByDichromate = defineMethod({
  id: "ethanol-by-dichromate",
  version: 4,
  family: "colorimetric",
  title: "Ethanol by dichromate",
  purpose: "The ethanol in a fermented drink, in percent by volume, by the green of chromium(III).",
  equations: [
    {
      name: "dichromate oxidizes ethanol",
      equation: "2 Cr2O7^2- + 3 C2H5OH + 16 H+ -> 4 Cr^3+ + 3 CH3COOH + 11 H2O",
    },
  ],
  substances: { C2H5OH: "ethanol", "Cr2O7^2-": "dichromate", "Cr^3+": "chromium(III)" },
  stages: [
    {
      kind: "preparation",
      key: "drop",
      title: "Measure a drop",
      inputs: [
        {
          symbol: "m",
          is: "mass",
          label: "Mass of the drops",
          of: "ethanol, 10 %",
          per: "run",
          weighing: "tared",
          expect: [1.5, 6],
          ...densityOf("ethanol, 10 %"),
        },
        { symbol: "N", is: "given", label: "Drops counted", unit: "1", per: "run", exact: true },
        {
          symbol: "ρ",
          is: "constant",
          label: "Density of ethanol, 10 %",
          value: "0.984",
          unit: "g/mL",
          plusMinus: "0.001",
        },
      ],
      relations: [
        { relation: "V_d = m / (ρ * N)", title: "Volume of a drop", unit: "mL" },
        { relation: "f = 1 / V_d", title: "Drops to the mL", unit: "1/mL" },
      ],
      result: { symbol: "V_d", name: "Volume of a drop", unit: "mL" },
      // Droppers give 10 to 60 drops to the mL; beyond that a weighing or a count is wrong. Common practice, no source.
      plausible: [{ rule: "between", symbol: "V_d", from: 0.01, to: 0.15, unit: "mL" }],
      also: [{ symbol: "f", name: "Drops to the mL", unit: "1/mL" }],
      reagents: [about("ethanol, 10 % v/v", mL("5"), "from the dropper that the standards are made with")],
      steps: [
        "Tare a small beaker; count 60 to 100 drops of the ethanol stock into it, the dropper upright; weigh.",
        "About 20 drops make a milliliter; your dropper has a number of its own.",
      ],
      cautions: ["The same dropper, held alike, for everything that is counted in drops."],
    },
    chooseWavelength(600, "the flask with 10 drops of stock"),
    {
      kind: "calibration",
      key: "standards",
      title: "Read the standards",
      inputs: [
        {
          symbol: "P_0",
          is: "given",
          label: "Ethanol in the stock",
          unit: "% v/v",
          per: "run",
          presumed: { value: "10.00", plusMinus: "0.05" },
        },
        { symbol: "V_d", is: "result", label: "Volume of a drop", of: "ethanol", per: "run", stage: "drop" },
        standardFlask("50.00"),
        blank,
        { symbol: "d", is: "given", label: "Drops of the stock", unit: "1", per: "trial", exact: true },
        absorbance,
      ],
      axis: {
        symbol: "φ",
        name: "Ethanol in the final solution",
        unit: "% v/v",
        relations: [{ relation: "φ = P_0 * d * V_d / V_f", title: "Ethanol in a standard", unit: "% v/v" }],
      },
      line: straight,
      series: { symbol: "d", values: ["0", "5", "10", "15", "20"] },
      strongest: 0.72,
      color: "#3f7d5a",
      relations: [{ relation: "k = b / 10000", title: "Absorbance for a hundredth of a percent", unit: "1" }],
      plausible: [notNegative("k", "1")],
      result: { symbol: "k", name: "Absorbance for a hundredth of a percent", unit: "1" },
      also: [{ symbol: "V_d", name: "Volume of a drop", unit: "mL" }],
      reagents: [
        exactly("ethanol stock, 10 % v/v", series(drops("0", "20")), "with water to 20 drops in all"),
        dichromate,
      ],
      conditions: [{ what: "Let it react", minutes: 5, strict: true }],
      steps: [
        "Count 0, 5, 10, 15 and 20 drops of the stock into 50 mL flasks, and water to 20 drops in all.",
        "Pipette 10 mL of acid dichromate into each, swirl, wait 5 min; make up to the mark.",
        ...cuvetteSteps,
        "Five people read each standard: five readings a level are pooled.",
        driftStep,
      ],
      cautions: [
        "Chromium(VI) is toxic and causes cancer: gloves, hood, no skin contact; every rinse goes to the chromium waste.",
      ],
    },
    {
      kind: "unknown",
      key: "unknown",
      title: "Read the drink",
      inputs: [
        {
          symbol: "V_d",
          is: "result",
          label: "Volume of a drop",
          of: "ethanol",
          per: "run",
          stage: "standards",
          result: "V_d",
        },
        standardFlask("50.00"),
        { symbol: "V_p", is: "pipette", label: "Drink pipetted", of: "drink", per: "run", presumed: "25.00" },
        { symbol: "V_m", is: "flask", label: "Diluted to", of: "drink", per: "run", presumed: "50.00" },
        {
          symbol: "P_lim",
          is: "given",
          label: "Ethanol on the label",
          unit: "% v/v",
          per: "run",
          optional: true,
        },
        {
          symbol: "d_u",
          is: "given",
          label: "Drops of the diluted drink",
          unit: "1",
          per: "trial",
          exact: true,
        },
        absorbance,
        readOff("φ_x", "Ethanol in the final solution", "ethanol"),
      ],
      relations: [
        { relation: "φ_m = φ_x * V_f / (d_u * V_d)", title: "Ethanol in the diluted drink", unit: "% v/v" },
        { relation: "P = φ_m * V_m / V_p", title: "Ethanol in the drink", unit: "% v/v" },
      ],
      result: { symbol: "P", name: "Ethanol in the drink", unit: "% v/v" },
      plausible: [notNegative("P", "% v/v"), atMostAll("P")],
      accept: { against: "value", symbol: "P_lim", tolerancePercent: 10, whenOff: "tell" },
      reagents: [exactly("the diluted drink", drops("20"), "as the standards"), dichromate],
      conditions: [{ what: "Let it react", minutes: 5, strict: true }],
      steps: [
        "Dilute the drink so that it lies among the standards: 25 mL to 50 mL for a drink of 10 %.",
        "Count 20 drops of it into a 50 mL flask, add dichromate, wait, make up and read as the standards.",
      ],
      cautions: [
        "Sugar and aldehydes are oxidized as well: distil a sweet drink first.",
        "Chromium(VI) is toxic and causes cancer: every rinse goes to the chromium waste.",
      ],
    },
  ],
  protection: [...protection, "Gloves for chromium(VI), and the hood"],
  hazards: [
    "Dichromate: toxic, oxidizing, causes cancer; in strong sulfuric acid, which burns. Acid into water, never water into acid.",
    "Ethanol burns: no flames.",
    authority,
  ],
  waste: ["All flasks, cuvettes' contents and rinses: to the chromium waste. Nothing to the drain."],
  glassware: [...colorimetricGlassware, "10 mL one-mark pipette for the dichromate", "dropper", "balance"],
});
