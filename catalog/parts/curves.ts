import type { Input } from "~/core/inputs";
import type { ComputedStage, CurveStage } from "~/core/method";
import { about, mL } from "./reagents";
import { fillBelowEyes, labelled, noMouth } from "./safety";

/* A whole titration curve: what is read, how it is taken. Common practice, no source. */

/** A curve of what a meter reads while a titrant is added. */
export const curveInput = (
  titrant: string,
  reads: "pH" | "mV" | "absorbance" | "conductance",
  plusMinus: string,
  symbol = "E",
): Input => ({
  symbol,
  is: "curve",
  label: { pH: "pH", mV: "Potential", absorbance: "Absorbance", conductance: "Conductance" }[reads],
  titrant,
  per: "trial",
  reads,
  plusMinus,
});

/** How the electrode answers in its buffers. */
export const calibratedMeter: Input = {
  symbol: "k",
  is: "meter",
  label: "Calibration of the pH meter",
  per: "run",
};

/** One equivalence point, the last there is. */
export const oneEnd: CurveStage["curve"]["ends"] = [
  { symbol: "V", name: "Equivalence point", at: "last", part: 1 },
];

/** Two, of which the first comes at a part of the last. */
export const twoEnds = (part: number): CurveStage["curve"]["ends"] => [
  { symbol: "V_1", name: "First equivalence point", at: "first", part },
  { symbol: "V_2", name: "Last equivalence point", at: "last", part: 1 },
];

export const calibrateMeter =
  "Calibrate the meter with fresh buffers; rinse and dab the electrode between them. Its slope must lie between 92 and 102 % of theory.";

export const takePoints =
  "Write the reading before anything is added. Then titrant as advised, stir, wait until the reading is steady, write the pair.";

export const stirred: NonNullable<ComputedStage["conditions"]> = [
  { what: "at one temperature, stirred", celsius: [18, 28] },
];

export const electrodeCautions = (first: string): string[] => [
  first,
  "Keep the stirrer clear of the electrode: its bulb is thin glass. Broken glass goes into its own bin.",
  fillBelowEyes,
  noMouth,
  labelled,
];

export const waterFor = (amount: string, why: string) => about("water", mL(amount), why);

export const curveGlass = ["50 mL burette", "magnetic stirrer", "250 mL beakers"];
export const meterGlass = [...curveGlass, "pH meter with electrode", "buffers pH 4, 7 and 10"];
