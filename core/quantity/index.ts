export * from "./dimension";
export * from "./quantity";
export * from "./rounding";
export * from "./significant";
export * from "./student";
export * from "./unit";
