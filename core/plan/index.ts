export * from "./calculated-curve";
export * from "./equivalents";
export * from "./plan-method";
export * from "./which-indicator";
