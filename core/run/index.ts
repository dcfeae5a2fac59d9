export * from "./method-of";
export * from "./run-record";
export * from "./empty-run";
export * from "./known-stage";
export { knownWords } from "./known-words";
export { canLeaveOut } from "./left-out";
export * from "./held-against";
export * from "./adapted";
export * from "./alias";
