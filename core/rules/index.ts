export * from "./contradictions";
export * from "./house-words";
export * from "./rules";
export * from "./schema";
export * from "./table";
export * from "./texts";
