export * from "./simulate-run";
