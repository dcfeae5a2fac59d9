export * from "./observation";
export * from "./readings";
