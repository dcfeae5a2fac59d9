export * from "./check-field";
export * from "./fields";
export * from "./method";
export { equationsOf, reactingOf } from "./normality";
export * from "./practice";
export * from "./schema";
export * from "./zero-titer";
