export * from "./plan-method";
