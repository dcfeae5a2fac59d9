import type { HouseRules } from "~/core/rules";
import { defaultHouseRules } from "./defaults";
import { msg, type Phrase } from "~/core/text";

/** House rules under a name, to begin with. Common practice, no source. */
export interface RulesPreset {
  readonly key: string;
  readonly name: Phrase;
  /** For whom, in a line. */
  readonly about: Phrase;
  readonly rules: HouseRules;
}

const { burette, glassware, balance, words } = defaultHouseRules;

export const rulesPresets: readonly RulesPreset[] = [
  {
    key: "everyday",
    name: msg`Everyday bench`,
    about: msg`Three within 0.10 mL, read to 0.01, ± as twice u.`,
    rules: defaultHouseRules,
  },
  {
    key: "first-lesson",
    name: msg`First lesson`,
    about: msg`Two within 0.20 mL, half divisions, class B, significant figures.`,
    rules: {
      ...defaultHouseRules,
      agreement: { rule: "n-within", replicates: 2, withinMl: "0.20" },
      burette: { ...burette, resolutionMl: "0.05", readingHalfWidthMl: "0.05" },
      glassware: { ...glassware, toleranceClass: "B" },
      balance: { ...balance, readabilityG: "0.001", linearityG: "0.002" },
      digits: "significant-figures",
      percentError: "absolute",
    },
  },
  {
    key: "careful",
    name: msg`Careful work`,
    about: msg`Four within 2 ‰, results compared, each end read twice, buoyancy corrected, 95 % interval.`,
    rules: {
      ...defaultHouseRules,
      agreement: { rule: "relative-spread", replicates: 4, partsPerThousand: "2" },
      agreementOf: "results",
      outliers: "dixon-95",
      burette: { ...burette, readTwice: true },
      balance: { ...balance, correctBuoyancy: true },
      plusMinus: "i95",
    },
  },
  {
    key: "from-zero",
    name: msg`From zero, in cm³`,
    about: msg`Titre and cm³, started at zero, two within 0.10 or a third, titres averaged first.`,
    rules: {
      ...defaultHouseRules,
      agreement: { rule: "two-else-third", withinMl: "0.10" },
      burette: { ...burette, resolutionMl: "0.05", readingHalfWidthMl: "0.05", start: "zero" },
      average: "titers",
      words: { ...words, titer: "titre", volume: "cm³" },
    },
  },
  {
    key: "equivalents",
    name: msg`By equivalents`,
    about: msg`Normality beside mol/L, readings to 0.02, three within ± 0.06 of their mean, errors with their sign.`,
    rules: {
      ...defaultHouseRules,
      agreement: { rule: "within-of-mean", replicates: 3, withinMl: "0.06" },
      burette: { ...burette, resolutionMl: "0.02" },
      words: { ...words, normality: true },
    },
  },
];
