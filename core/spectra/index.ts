export * from "./propose";
export * from "./visible";
