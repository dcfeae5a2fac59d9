export * from "./simulate-run";
export * from "./world";
