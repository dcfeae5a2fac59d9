export * from "./run-record";
