export * from "./delivery";
export * from "./distribution";
export * from "./glassware";
export * from "./mass";
export * from "./reading";
export * from "./slips";
export * from "./volume";
