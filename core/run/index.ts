export * from "./method-of";
export * from "./run-record";
export * from "./empty-run";
