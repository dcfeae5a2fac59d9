export * from "./calculation";
export * from "./conversions";
export * from "./dilution";
export * from "./lineage";
export * from "./making";
export * from "./mass-for-solution";
export * from "./typed-record";
