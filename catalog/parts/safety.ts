import { msg, type Phrase } from "~/core/text";

/* Protection, hazards, cautions and waste. Common practice, no source; data sheets and local rules come first. */

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

export const baseHazard =
  "Sodium hydroxide solution is corrosive: rinse skin or eyes at once with much water.";
export const phenolphthaleinHazard = "Phenolphthalein solution holds alcohol: keep it from flames.";
export const baseHazards = [baseHazard, phenolphthaleinHazard];

export const acidHazard =
  "Hydrochloric acid irritates; if it must be diluted, acid into water, never water into acid.";

export const sulfuricHazard =
  "Sulfuric acid burns: acid into water, never water into acid; rinse at once with much water.";

export const permanganateHazards = [
  "Permanganate oxidizes and stains skin and clothes: gloves, and wipe spills with a little acidic ascorbic acid solution.",
  sulfuricHazard,
];

export const iodineHazards = [
  "Iodine stains and its vapor irritates: keep flasks stoppered, work in moving air.",
];

export const manganeseWaste =
  "Titrated flasks hold manganese and acid: to the heavy-metal waste, as local rules say. Brown stains come off with ascorbic or oxalic acid.";

export const iodineWaste =
  "Take the color of left-over iodine away with a little thiosulfate; then as local rules say.";

export const acidAndPermanganate = "Goggles and gloves on: the acid burns, permanganate stains.";
export const redoxCautions = [acidAndPermanganate, fillBelowEyes, noMouth, labelled];

export const iodineCautions = ["Goggles and gloves on: acid and iodine.", fillBelowEyes, noMouth, labelled];

export const ammoniaHazard =
  "The buffer gives off ammonia: it stings eyes and lungs. Hood, and keep the bottle shut.";

export const edtaWaste =
  "Titrated flasks: to the drain with much water, where local rules allow it; metals other than calcium and magnesium to the heavy-metal waste.";

export const edtaCautions = [
  "Goggles on; open the ammonia buffer in the hood only.",
  fillBelowEyes,
  noMouth,
  labelled,
];

/** What holds at every bench, whatever is titrated. Common practice, no source. */
export const generalCautions: readonly Phrase[] = [
  msg`Goggles on, hair back, closed shoes, long trousers; gloves as the lab's rule says.`,
  msg`Know where eyewash, shower, fire blanket and the bin for broken glass are.`,
  msg`Fill a burette below eye level, with the tap shut and a waste beaker under it.`,
  msg`Acid into water, never water into acid.`,
  msg`Label every beaker, and never return what is left to the stock bottle.`,
];
