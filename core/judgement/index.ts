export * from "./acceptance";
export * from "./combine";
export * from "./concordance";
export * from "./outliers";
