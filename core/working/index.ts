export * from "./working";
