import { defineMethod } from "~/core/method";
import { chooseWavelength, colorimetricGlassware, path } from "../../parts/photometer";
import { authority, baseHazards, protection } from "../../parts/safety";
import { about, exactly, mL } from "../../parts/reagents";
import { notNegative } from "../../parts/plausible";

/** A violet dye that hydroxide turns colorless: pseudo-first order, hydroxide in large excess. */
export const fadingOfADye = defineMethod({
  id: "fading-of-a-dye",
  version: 4,
  family: "colorimetric",
  title: "Fading of a dye in base",
  purpose: "The order of the reaction in the dye and in hydroxide, and its rate constant.",
  equations: [{ name: "hydroxide adds to the dye", equation: "C25H30N3+ + OH- -> C25H31N3O" }],
  substances: { "C25H30N3+": "crystal violet", "OH-": "hydroxide" },
  stages: [
    chooseWavelength(590, "the dye in water"),
    {
      kind: "rate",
      key: "fading",
      title: "Follow the fading",
      inputs: [
        { symbol: "c_B", is: "given", label: "Hydroxide in the cuvette", unit: "mol/L", per: "trial" },
        { symbol: "T", is: "temperature", label: "Temperature", per: "run", plusMinus: "0.5" },
        {
          symbol: "ε",
          is: "given",
          label: "Molar absorptivity of the dye",
          unit: "L/(mol·cm)",
          per: "run",
          optional: true,
        },
        path,
        { symbol: "A", is: "trace", label: "Absorbance in time", per: "trial" },
      ],
      // Of zero or second order the constant is one of concentration only where the absorptivity is stated.
      rate: { symbol: "k_1", excess: "c_B", absorptivity: "ε", path: "l" },
      plausible: [notNegative("k_2", "L/(mol·s)")],
      presumed: 0.12,
      relations: [{ relation: "k_2 = k_1 / c_B", title: "Second-order rate constant", unit: "L/(mol·s)" }],
      result: { symbol: "k_2", name: "Second-order rate constant", unit: "L/(mol·s)" },
      reagents: [
        about("crystal violet, 0.01 g/L", mL("2"), "in the cuvette first"),
        exactly("sodium hydroxide, 0.1 to 0.4 mol/L", mL("1"), "at time zero, mixed at once"),
      ],
      conditions: [{ what: "The same temperature in all runs" }],
      steps: [
        "Zero on water at the wavelength chosen. Put 2 mL of the dye into the cuvette.",
        "Add 1 mL of base, mix twice, close the lid, and take the absorbance each second for 200 s.",
        "Again with half, and with twice, the base: how k changes tells the order in hydroxide.",
      ],
      cautions: ["The dye stains skin and cloth; sodium hydroxide burns: goggles and gloves."],
    },
  ],
  protection,
  hazards: [
    "Crystal violet harms water life and is suspected of causing cancer: gloves.",
    baseHazards[0] ?? "",
    authority,
  ],
  waste: ["Collect dye solutions as aqueous organic waste."],
  glassware: [
    ...colorimetricGlassware,
    "1 and 2 mL pipettes",
    "stopwatch or instrument that reads each second",
  ],
});
