export * from "./schema";
export * from "./observation";
export * from "./readings";
export * from "./decimals";
