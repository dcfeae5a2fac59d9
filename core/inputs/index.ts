export * from "./field";
export * from "./kinds";
export * from "./schema";
