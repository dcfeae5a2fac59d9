export * from "./atomic-weights";
export * from "./equation";
export * from "./formula";
export * from "./half-reaction";
export * from "./molar-mass";
export * from "./oxidation";
export * from "./scheme";
