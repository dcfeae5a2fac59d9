export * from "./plan-method";
export * from "./which-indicator";
