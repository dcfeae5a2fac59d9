export * from "./check-record";
export * from "./evaluate";
export * from "./monte-carlo";
export * from "./rules-preview";
export * from "./changes";
export * from "./remembered";
export * from "./series";
export * from "./results";
