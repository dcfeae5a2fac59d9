export * from "./check-field";
export * from "./fields";
export * from "./method";
export {
  equationsOf,
  equivalentsIn,
  equivalentsOfResult,
  molPerL,
  reactingOf,
  typedNormality,
} from "./normality";
export * from "./practice";
export * from "./schema";
export * from "./zero-titer";
