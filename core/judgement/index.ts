export * from "./acceptance";
export * from "./chi-square";
export * from "./combine";
export * from "./concordance";
export * from "./outliers";
export * from "./control-chart";
