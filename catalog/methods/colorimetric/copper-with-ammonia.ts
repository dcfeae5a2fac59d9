import { defineMethod } from "~/core/method";
import {
  absorbance,
  blank,
  chooseWavelength,
  colorimetricGlassware,
  cuvetteSteps,
  driftStep,
  limit,
  path,
  readOff,
  sampleTaken,
  standardFlask,
  stock,
  stockTaken,
  straight,
} from "../../parts/photometer";
import { authority, protection } from "../../parts/safety";
import { about, exactly, mL, series } from "../../parts/reagents";
import { notNegative } from "../../parts/plausible";

const ammonia = about(
  "ammonia solution, 6 mol/L",
  mL("2.5"),
  "in each flask, blank and unknown too; in the hood",
);

/** Copper as its deep blue complex with ammonia; the line is drawn against milliliters of stock. */
export const copperWithAmmonia = defineMethod({
  id: "copper-with-ammonia",
  version: 4,
  family: "colorimetric",
  title: "Copper by its color with ammonia",
  purpose: "The mass of copper in a flask, and its concentration in the sample, by a calibration line.",
  equations: [{ name: "the blue complex forms", equation: "Cu^2+ + 4 NH3 -> Cu(NH3)4^2+" }],
  substances: { "Cu^2+": "copper(II)", NH3: "ammonia" },
  stages: [
    chooseWavelength(620, "the flask with 6 mL of stock"),
    {
      kind: "calibration",
      key: "standards",
      title: "Read the standards",
      inputs: [
        stock("Copper in the stock", "g/L", "2.000", "0.004"),
        standardFlask("25.00"),
        path,
        blank,
        stockTaken(10),
        absorbance,
      ],
      axis: { symbol: "V_s", name: "Stock in the flask", unit: "mL", relations: [] },
      line: straight,
      series: { symbol: "V_s", values: ["2.00", "4.00", "6.00", "8.00", "10.00"] },
      strongest: 0.69,
      color: "#1f5fa8",
      relations: [
        {
          relation: "ε = b * V_f * M(Cu) / (c_0 * l)",
          title: "Molar absorptivity",
          unit: "L/(mol·cm)",
        },
      ],
      result: { symbol: "ε", name: "Molar absorptivity", unit: "L/(mol·cm)" },
      plausible: [notNegative("ε", "L/(mol·cm)")],
      also: [{ symbol: "c_0", name: "Copper in the stock", unit: "g/L" }],
      reagents: [exactly("copper stock, 2 g/L", series(mL("2", "10")), "one volume for each flask"), ammonia],
      steps: [
        "Take 2, 4, 6, 8 and 10 mL of the copper stock into 25 mL flasks; one more without, for the blank.",
        "Add 2.5 mL of ammonia to each, in the hood: a pale solid forms and dissolves to deep blue. Make up, invert, label.",
        ...cuvetteSteps,
        driftStep,
      ],
      cautions: [
        "Ammonia as much in the blank and in the unknown as in the standards, or the line means nothing for them.",
      ],
    },
    {
      kind: "unknown",
      key: "unknown",
      title: "Read the unknown",
      inputs: [
        {
          symbol: "c_0",
          is: "result",
          label: "Copper in the stock",
          of: "stock",
          per: "run",
          stage: "standards",
          result: "c_0",
        },
        limit("g/L"),
        sampleTaken("5.00"),
        absorbance,
        readOff("V_x", "Stock that would color as much", "Cu"),
      ],
      relations: [
        { relation: "m = c_0 * V_x", title: "Copper in the flask", unit: "mg" },
        { relation: "c_u = m / V_u", title: "Copper in the sample", unit: "g/L" },
      ],
      result: { symbol: "c_u", name: "Copper in the sample", unit: "g/L" },
      also: [{ symbol: "m", name: "Copper in the flask", unit: "mg" }],
      plausible: [notNegative("c_u", "g/L")],
      accept: { against: "limit", symbol: "c_lim", bound: "at most" },
      reagents: [exactly("the sample", mL("5"), "into a flask as large as those of the standards"), ammonia],
      steps: [
        "Treat the unknown as the standards: the same flask, the same ammonia, the same wait.",
        "Rinse the cuvette with it, fill, wipe, read; make a second flask from the sample: it shows how well the whole procedure repeats.",
      ],
      cautions: ["Where it reads above the strongest standard, dilute the sample, not the colored flask."],
    },
  ],
  protection,
  hazards: [
    "Ammonia burns eyes and lungs: in the hood, and closed when not poured.",
    "Copper salts harm water life and are harmful if swallowed.",
    authority,
  ],
  waste: ["All flasks hold copper: to the heavy-metal waste."],
  glassware: colorimetricGlassware,
});
