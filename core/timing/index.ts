export * from "./day";
export * from "./stagger";
export * from "./timer";
