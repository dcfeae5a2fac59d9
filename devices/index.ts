export * from "./absorbers";
export * from "./balance";
export * from "./burette";
export * from "./instrument";
export * from "./photometer";
export * from "./serial";
export * from "./thermometer";
export * from "./watch";
export type { Fault } from "./streaming";
