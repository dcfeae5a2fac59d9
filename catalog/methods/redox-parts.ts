import type { Input, InputOf } from "~/core/inputs";
import type { Reagent, TitrationStage } from "~/core/method";
import { fillBelowEyes, labelled, noMouth, pipetted, purityOf, titer } from "./parts";
import { densityOf } from "../densities";

/* What redox methods share: permanganate and iodine, their colors and their cautions. Common practice, no source. */

export const exactly = (name: string, amount: string, when: string): Reagent => ({
  name,
  amount,
  exact: true,
  when,
});
export const about = (name: string, amount: string, when: string): Reagent => ({
  name,
  amount,
  exact: false,
  when,
});

/** The same of what is added only when all else is ready, since it does not keep. */
export const atLast = (name: string, amount: string, when: string): Reagent => ({
  ...about(name, amount, when),
  last: true,
});

export const permanganateIron = {
  name: "permanganate and iron(II)",
  equation: "MnO4- + 5 Fe^2+ + 8 H+ -> Mn^2+ + 5 Fe^3+ + 4 H2O",
};
export const permanganateOxalate = {
  name: "permanganate and oxalate",
  equation: "2 MnO4- + 5 C2O4^2- + 16 H+ -> 2 Mn^2+ + 10 CO2 + 8 H2O",
};
export const iodineThiosulfate = {
  name: "iodine and thiosulfate",
  equation: "I2 + 2 S2O3^2- -> 2 I- + S4O6^2-",
};
export const iodateReleases = {
  name: "iodate sets iodine free",
  equation: "KIO3 + 5 I- + 6 H+ -> 3 I2 + 3 H2O + K+",
};

export const iron = "(NH4)2Fe(SO4)2·6H2O";

/** Permanganate in the burette: its own indicator, dark, so that the top of the meniscus is read. */
export const selfIndicating = {
  indicator: "none: permanganate is its own",
  persistence: "The faintest pink must stay for 30 s.",
  meniscus: "top",
  ribbon: [
    { color: "#eef1ee", looks: "colorless", do: "keep going" },
    { color: "#fbe4ee", looks: "pink where the drop falls, gone on swirling", do: "one drop at a time" },
    { color: "#f2aac9", looks: "faintest pink, 30 s", do: "stop, read", end: true },
    { color: "#a8246b", looks: "purple", do: "overshot" },
  ],
} as const satisfies Partial<TitrationStage>;

/** As above, hot: the first drops keep their pink for a while. */
export const selfIndicatingHot = {
  ...selfIndicating,
  persistence:
    "The first drops stay pink for up to a minute: that is not the end. Wait for each to clear until it clears at once.",
  ribbon: [
    { color: "#f7cfe0", looks: "pink that stays a while, at the start", do: "wait: not the end" },
    { color: "#eef1ee", looks: "colorless again, clears at once", do: "keep going" },
    { color: "#fbe4ee", looks: "pink that fades slowly", do: "one drop at a time" },
    { color: "#f2aac9", looks: "faintest pink, 30 s", do: "stop, read", end: true },
    { color: "#6f4a2a", looks: "brown", do: "too fast, too cold or too little acid: discard" },
  ],
} as const satisfies Partial<TitrationStage>;

/** Iodine titrated away by thiosulfate. */
export const starchToColorless = {
  indicator: "starch, 1 to 2 mL, only when the flask is pale yellow",
  persistence: "Colorless must stay for 30 s. That the blue comes back after minutes is the air's doing.",
  meniscus: "bottom",
  ribbon: [
    { color: "#a4581c", looks: "brown", do: "keep going" },
    { color: "#f1e08c", looks: "pale yellow", do: "add the starch" },
    { color: "#27335f", looks: "blue-black", do: "one drop at a time" },
    { color: "#eef1ee", looks: "just colorless", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

/** Iodine in the burette, starch in the flask from the start. */
export const starchToBlue = {
  indicator: "starch, 1 to 2 mL",
  persistence: "The blue-black must stay; see the step for how long.",
  meniscus: "top",
  ribbon: [
    { color: "#eef1ee", looks: "colorless", do: "keep going" },
    { color: "#8b96bd", looks: "blue that fades", do: "one drop at a time" },
    { color: "#27335f", looks: "blue-black, and stays so", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

const rinse = (titrant: string) =>
  `Rinse the burette with water, then with the ${titrant}. Fill it, clear the tip of bubbles, take the funnel out.`;

export const permanganateBurette = [
  rinse("permanganate"),
  "It is too dark to see the bottom: read the top of the meniscus, both times.",
];
export const thiosulfateBurette = [
  rinse("thiosulfate"),
  "Read at eye level against a white card, the bottom of the meniscus.",
];
export const iodineBurette = [rinse("iodine"), "Read the top of the meniscus, both times."];

export const permanganateHazards = [
  "Permanganate oxidizes and stains skin and clothes: gloves, and wipe spills with a little acidic ascorbic acid solution.",
  "Sulfuric acid burns: acid into water, never water into acid; rinse at once with much water.",
];
export const iodineHazards = [
  "Iodine stains and its vapor irritates: keep flasks stoppered, work in moving air.",
];
export const sulfuricHazard =
  "Sulfuric acid burns: acid into water, never water into acid; rinse at once with much water.";

export const manganeseWaste =
  "Titrated flasks hold manganese and acid: to the heavy-metal waste, as local rules say. Brown stains come off with ascorbic or oxalic acid.";
export const iodineWaste =
  "Take the color of left-over iodine away with a little thiosulfate; then as local rules say.";

export const redoxCautions = [
  "Goggles and gloves on: the acid burns, permanganate stains.",
  fillBelowEyes,
  noMouth,
  labelled,
];
export const iodineCautions = ["Goggles and gloves on: acid and iodine.", fillBelowEyes, noMouth, labelled];

export const permanganateGlassware = [
  "50 mL burette, amber or shaded",
  "250 mL conical flasks",
  "measuring cylinders for the acids",
];

export const permanganateTiter = titer("KMnO4");

/** A permanganate of about 0.02 mol/L from the shelf. */
export const knownPermanganate: Input = {
  symbol: "c_p",
  is: "given",
  label: "Concentration of the permanganate",
  of: "KMnO4",
  per: "run",
  unit: "mol/L",
  presumed: { value: "0.02000", plusMinus: "0.00005" },
};

export const knownThiosulfate: InputOf<"given"> = {
  symbol: "c_t",
  is: "given",
  label: "Concentration of the thiosulfate",
  of: "Na2S2O3",
  per: "run",
  unit: "mol/L",
  presumed: { value: "0.1000", plusMinus: "0.0003" },
};

export const knownIodine: Input = {
  symbol: "c_i",
  is: "given",
  label: "Concentration of the iodine",
  of: "I2",
  per: "run",
  unit: "mol/L",
  presumed: { value: "0.0100", plusMinus: "0.00005" },
};

/** A solid weighed into each flask by difference. */
export const weighedSolid = (of: string, label: string, expect: [number, number]): InputOf<"mass"> => ({
  symbol: "m",
  is: "mass",
  label,
  of,
  per: "trial",
  before: "Boat with solid",
  after: "Boat after transfer",
  expect,
  ...densityOf(of),
});

/** A solid weighed once, for a standard solution. */
export const weighedOnce = (of: string, label: string, expect: [number, number]): Input => ({
  ...weighedSolid(of, label, expect),
  per: "run",
});

export const flaskOnce = (of: string, presumed = "250.0", symbol = "V_f", label = "Flask"): Input => ({
  symbol,
  is: "flask",
  label,
  of,
  per: "run",
  presumed,
});

/** A standard made of a weighed solid in a flask: c = m · P / M / V. */
export const weighedStandard = (formula: string, symbol: string, name: string) => ({
  relations: [
    {
      relation: `${symbol} = m * P / M(${formula}) / V_f`,
      title: `Concentration of the ${name}`,
      unit: "mol/L",
    },
  ],
  result: { symbol, name: `Concentration of the ${name}`, unit: "mol/L", assigns: formula },
});

export { pipetted, purityOf };
