export * from "./assay";
export * from "./board";
export * from "./working";
