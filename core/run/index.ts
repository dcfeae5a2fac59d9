export * from "./run-record";
export * from "./empty-run";
