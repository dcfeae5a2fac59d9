import { defineMethod } from "~/core/method";
import {
  authority,
  fillBelowEyes,
  labelled,
  noMouth,
  protection,
  iodineHazards,
  iodineWaste,
  sulfuricHazard,
} from "../../parts/safety";
import { pipetted, titer, knownIodine } from "../../parts/inputs";
import { about, atLast, exactly, mL } from "../../parts/reagents";
import { iodineBurette } from "../../parts/burette";
import { starchToBlue } from "../../parts/indicators";
import { atMost } from "../../parts/plausible";

/** Total sulfur dioxide in a drink: bound sulfite is freed by alkali, the acid comes last, since the gas escapes. */
export const sulfurDioxide = defineMethod({
  id: "sulfur-dioxide",
  version: 5,
  family: "redox",
  title: "Sulfur dioxide, total, in a drink by iodine",
  purpose:
    "How much sulfur dioxide a drink holds, free and bound, and whether it keeps the limit that you enter.",
  equations: [{ name: "iodine and sulfur dioxide", equation: "SO2 + I2 + 2 H2O -> SO4^2- + 2 I- + 4 H+" }],
  substances: { SO2: "sulfur dioxide", I2: "iodine" },
  stages: [
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the drink",
      inputs: [
        knownIodine,
        { symbol: "L", is: "given", label: "Legal limit", per: "run", unit: "mg/L", optional: true },
        pipetted("the drink", "Drink taken", "50.00"),
        titer("I2"),
      ],
      relations: [
        { relation: "n = c_i * V * ratio(SO2, I2)", title: "Sulfur dioxide in the flask", unit: "mmol" },
        { relation: "γ = n * M(SO2) / V_a", title: "Sulfur dioxide in the drink", unit: "mg/L" },
      ],
      result: { symbol: "γ", name: "Sulfur dioxide, total", unit: "mg/L" },
      plausible: [atMost("γ", 110_000, "mg/L")],
      agree: { on: "V / V_a", per: "V_a" },
      accept: { against: "limit", symbol: "L", bound: "at most" },
      presumed: 150,
      expectMl: [4, 30],
      ...starchToBlue,
      persistSeconds: 120,
      persistence: "The first blue-black that stays 2 min. A quick fading is sulfite still coming free.",
      reagents: [
        about("sodium hydroxide, 1 mol/L", mL("25"), "in the flask before the drink"),
        exactly(
          "the drink, from a bottle just opened",
          mL("50.00"),
          "tip under the surface, into the alkali",
        ),
        atLast("starch, 1 %", mL("2"), "after standing"),
        atLast("sulfuric acid, 25 %", mL("15"), "at the last moment: the gas escapes from then on"),
      ],
      conditions: [
        { what: "let it stand, stoppered: frees the bound sulfite", minutes: 15, strict: true },
        { what: "titrate at once after the acid", minutes: 1, counts: "within", strict: true },
      ],
      steps: [
        "Put about 25 mL of 1 mol/L sodium hydroxide in a flask; pipette 50.00 mL of the drink into it, the tip under the surface.",
        "Stopper it, swirl, let it stand 15 min. Have the burette read and the acid measured before the time is up.",
        ...iodineBurette,
        "Add the starch; then, in the hood, the acid; titrate at once and fast to the first blue-black that stays 2 min.",
      ],
      cautions: [
        "Fume hood: sulfur dioxide comes off once the acid is in. It is dangerous to people with asthma.",
        "Goggles and gloves on: strong alkali, then 25 % acid.",
        fillBelowEyes,
        noMouth,
        labelled,
      ],
    },
  ],
  protection: [...protection, "Fume hood"],
  hazards: [
    "Sulfur dioxide harms the lungs: hood, and small volumes.",
    "Sodium hydroxide is corrosive to skin and eyes.",
    sulfuricHazard,
    ...iodineHazards,
    authority,
  ],
  waste: [iodineWaste, "Flasks are acid: neutralize before the drain, where local rules allow it."],
  glassware: [
    "50 mL burette",
    "50 mL one-mark pipette and filler",
    "250 mL conical flasks with stoppers",
    "measuring cylinders",
  ],
});
