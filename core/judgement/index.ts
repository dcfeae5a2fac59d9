export * from "./combine";
export * from "./concordance";
export * from "./statistics";
