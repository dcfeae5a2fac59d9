export * from "./check-field";
export * from "./compile";
export * from "./fields";
export * from "./fitted-unit";
export * from "./method";
export * from "./practice";
export * from "./schema";
export * from "./zero-titer";
