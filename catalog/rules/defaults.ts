import type { HouseRules } from "~/core/rules";

/** House rules of a lab that has set none: common practice, no source, but for the tolerances that the core brings. */
export const defaultHouseRules: HouseRules = {
  agreement: { rule: "n-within", replicates: 3, withinMl: "0.10" },
  agreementOf: "titers",
  outliers: "none",
  burette: {
    capacityMl: 50,
    resolutionMl: "0.01",
    readingHalfWidthMl: "0.02",
    start: "anywhere",
    meniscus: "by-color",
    readTwice: false,
    readTwiceWithinMl: "0.02",
    dropsPerMl: "20",
  },
  average: "results",
  glassware: { toleranceClass: "A", toleranceShape: "triangular" },
  balance: { readabilityG: "0.0001", linearityG: "0.0002", correctBuoyancy: false },
  temperature: { labC: "20", halfRangeC: "3", shape: "rectangular" },
  priorRepeatabilityPercent: "",
  plusMinus: "k2",
  digits: "uncertainty",
  percentError: "signed",
  photometer: { readingsWithin: "0.010", flasksPercent: "5" },
  words: { titer: "titer", volume: "mL", normality: false },
};
