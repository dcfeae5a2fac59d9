export * from "./stagger";
export * from "./timer";
