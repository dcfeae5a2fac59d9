export * from "./data-sheet";
export * from "./read-paper";
