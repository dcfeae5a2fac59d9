export * from "./draft";
