import type { TitrationStage } from "~/core/method";

/* Indicators: what to add, how the end looks, how long it must stay. Common practice, no source. */

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

/** The same with an acid in the burette: the pink goes. */
export const phenolphthaleinGone = {
  indicator: "phenolphthalein, 2 drops",
  persistence: "The pink must just go, and stay away on swirling.",
  meniscus: "bottom",
  ribbon: ribbons.pinkToColorless,
} as const satisfies Partial<TitrationStage>;

/** Methyl orange, with carbon dioxide boiled off: for acids on carbonates. */
export const methylOrange = {
  indicator: "methyl orange, 2 drops",
  persistence:
    "Boil for a minute near the end, cool, and go on: without carbon dioxide the orange comes sharply and stays.",
  meniscus: "bottom",
  ribbon: ribbons.yellowToOrange,
} as const satisfies Partial<TitrationStage>;

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

/** 5 to 10 mL of a buffer of 1 to 2 mol/L in some 80 mL. */
const ammoniaBuffer = { pH: 10, ammonia: 0.1 };

/** Eriochrome black T at pH 10, with a little magnesium bound to EDTA. */
export const wineRedToBlue = {
  medium: { ...ammoniaBuffer, magnesium: 0.0003 },
  indicator: "eriochrome black T, 3 to 5 drops or a few grains",
  persistence: "Sky blue with no red left must stay. It is slow at the end: a drop, then wait.",
  meniscus: "bottom",
  ribbon: [
    { color: "#8f2d56", looks: "wine red", do: "keep going" },
    { color: "#74528c", looks: "purple", do: "a drop, then wait" },
    { color: "#3f6fb5", looks: "sky blue, no red left", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

/** The same in a back-titration: the metal comes to the EDTA. */
export const blueToWineRed = {
  medium: ammoniaBuffer,
  indicator: "eriochrome black T, 3 to 5 drops or a few grains",
  persistence: "The first red that stays on swirling.",
  meniscus: "bottom",
  ribbon: [
    { color: "#3f6fb5", looks: "blue", do: "keep going" },
    { color: "#74528c", looks: "purple that goes back", do: "one drop at a time" },
    { color: "#8f2d56", looks: "wine red, and stays so", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

/** Xylenol orange at pH 5 to 6, in a back-titration: the metal comes to the EDTA. */
export const yellowToRed = {
  medium: { pH: 5.5 },
  indicator: "xylenol orange, 3 drops",
  persistence: "The first red-violet that stays on swirling.",
  meniscus: "bottom",
  ribbon: [
    { color: "#e3c32f", looks: "yellow", do: "keep going" },
    { color: "#d98a4a", looks: "orange that goes back", do: "one drop at a time" },
    { color: "#a8324f", looks: "red-violet, and stays so", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

/** Hydroxynaphthol blue at pH 12 to 13, for calcium alone. */
export const pinkToBlue = {
  medium: { pH: 12.5 },
  indicator: "hydroxynaphthol blue (or murexide: pink to violet)",
  persistence: "Clear blue with no pink left must stay.",
  meniscus: "bottom",
  ribbon: [
    { color: "#b8407a", looks: "pink-red", do: "keep going" },
    { color: "#7d5aa6", looks: "violet", do: "a drop, then wait" },
    { color: "#3a6cb0", looks: "clear blue", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;

/** The same over copper(I) iodide, which makes it cloudy. */
export const starchToCream = {
  ...starchToColorless,
  ribbon: [
    { color: "#a4581c", looks: "brown, with a pale solid", do: "keep going" },
    { color: "#f1e08c", looks: "pale yellow", do: "add the starch" },
    { color: "#5a6386", looks: "gray-blue", do: "add thiocyanate, then one drop at a time" },
    { color: "#f4efe6", looks: "cream, no blue", do: "stop, read", end: true },
  ],
} as const satisfies Partial<TitrationStage>;
