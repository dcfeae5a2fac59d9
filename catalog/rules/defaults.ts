import type { HouseRules } from "~/core/run";

/** House rules of a lab that has set none: common practice, no source, but for the tolerances that the core brings. */
export const defaultHouseRules: HouseRules = {
  agreement: { rule: "n-within", replicates: 3, withinMl: "0.10" },
  agreementOf: "titers",
  outliers: "none",
  burette: { capacityMl: 50, decimals: 2, readingHalfWidthMl: "0.02" },
  glassware: { toleranceClass: "A", toleranceShape: "triangular" },
  balance: { readabilityG: "0.0001", linearityG: "0.0002", correctBuoyancy: false },
  temperature: { halfRangeC: "3", shape: "rectangular" },
  priorRepeatabilityPercent: "",
  plusMinus: "k2",
  digits: "uncertainty",
  percentError: "signed",
};
