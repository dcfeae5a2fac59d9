import type { Input } from "~/core/inputs";
import type { Reagent, TitrationStage } from "~/core/method";

/*
 * What many methods share, so that it is said the same way in each: inputs, ribbons, the handling of the burette, protection.
 */

type Ribbon = TitrationStage["ribbon"];

export const ribbons = {
  colorlessToPink: [
    { color: "#eef1ee", looks: "colorless", do: "keep going" },
    { color: "#fbe4ee", looks: "pink that fades", do: "one drop at a time" },
    { color: "#f2aac9", looks: "faintest pink, 30 s", do: "stop, read", end: true },
    { color: "#b52c6c", looks: "strong pink", do: "overshot" },
  ],
  pinkToColorless: [
    { color: "#b8407a", looks: "pink", do: "keep going" },
    { color: "#f2aac9", looks: "pale pink", do: "one drop at a time" },
    { color: "#eef1ee", looks: "just colorless, and stays so", do: "stop, read", end: true },
  ],
  yellowToOrange: [
    { color: "#f3dd5c", looks: "yellow", do: "keep going" },
    { color: "#f0b64a", looks: "orange that goes back to yellow", do: "one drop at a time" },
    { color: "#e2854a", looks: "orange, and stays so", do: "stop, read", end: true },
    { color: "#b93a28", looks: "red", do: "overshot" },
  ],
  blueGreenToSalmon: [
    { color: "#2f7773", looks: "blue-green", do: "keep going" },
    { color: "#9aa6a4", looks: "gray", do: "one drop at a time" },
    { color: "#f0a795", looks: "salmon, and stays so", do: "stop, read", end: true },
    { color: "#b93a28", looks: "red", do: "overshot" },
  ],
} satisfies Record<string, Ribbon>;

export const phenolphthalein = {
  indicator: "phenolphthalein, 2 to 3 drops",
  persistence:
    "The faintest pink must stay for 30 s. Later it fades as carbon dioxide dissolves: that is no fault.",
  meniscus: "bottom",
  ribbon: ribbons.colorlessToPink,
} as const satisfies Partial<TitrationStage>;

/** How a burette is made ready and read, whatever is in it. */
export const buretteSteps = (titrant: string): string[] => [
  `Rinse the burette with water, then with the ${titrant}. Fill it, clear the tip of bubbles, take the funnel out.`,
  "Read at eye level against a white card, the bottom of the meniscus.",
];

export const protection = [
  "Goggles",
  "Closed shoes and long trousers",
  "Hair tied back",
  "Gloves as the lab's rule says",
];

export const authority =
  "Follow the safety data sheets, your institution's rules and local waste law, which come before this text.";

export const fillBelowEyes =
  "Fill the burette below eye level, with the tap shut and a waste beaker under it.";
export const noMouth = "Use a pipette filler; never pipette by mouth.";
export const labelled =
  "Label every beaker: most solutions are clear and colorless. Never return what is left to the stock bottle.";

export const neutralWaste =
  "Titrated flasks are neutral: to the drain with much water, where local rules allow it.";

export const titer = (titrant: string): Input => ({
  symbol: "V",
  is: "titer",
  label: "Titer",
  titrant,
  per: "trial",
});

export const pipetted = (of: string, label: string, presumed: string, symbol = "V_a"): Input => ({
  symbol,
  is: "pipette",
  label,
  of,
  per: "trial",
  presumed,
});

export const purityOf = (of: string, label: string, percent: string, plusMinus: string): Input => ({
  symbol: "P",
  is: "purity",
  label,
  of,
  per: "run",
  presumed: { percent, plusMinus },
});

/** A concentration known beforehand: from a label, a certificate, or a run of another day. */
export const knownConcentration = (
  symbol: string,
  label: string,
  of: string,
  value: string,
  plusMinus: string,
): Input => ({ symbol, is: "given", label, of, per: "run", unit: "mol/L", presumed: { value, plusMinus } });

export const fromStage = (symbol: string, label: string, of: string, stage: string): Input => ({
  symbol,
  is: "result",
  label,
  of,
  per: "run",
  stage,
});

export const baseHazards = [
  "Sodium hydroxide solution is corrosive: rinse skin or eyes at once with much water.",
  "Phenolphthalein solution holds alcohol: keep it from flames.",
];

export const acidHazard =
  "Hydrochloric acid irritates; if it must be diluted, acid into water, never water into acid.";

export const aliquotGlassware = [
  "50 mL burette",
  "25 mL one-mark pipette and filler",
  "250 mL conical flasks",
];

export const indicatorReagent: Reagent = {
  name: "phenolphthalein",
  amount: "2 to 3 drops",
  exact: false,
  when: "before the titration",
};

/** A base of about 0.1 mol/L from the shelf. */
export const knownBase = knownConcentration("c_b", "Concentration of the base", "NaOH", "0.1000", "0.0002");

/** Methyl orange, with carbon dioxide boiled off: for acids on carbonates. */
export const methylOrange = {
  indicator: "methyl orange, 2 drops",
  persistence:
    "Boil for a minute near the end, cool, and go on: without carbon dioxide the orange comes sharply and stays.",
  meniscus: "bottom",
  ribbon: ribbons.yellowToOrange,
} as const satisfies Partial<TitrationStage>;
