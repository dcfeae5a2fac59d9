export * from "./plan-method";
export * from "./which-indicator";
export * from "./calculated-curve";
