export * from "./equation";
export * from "./formula";
export * from "./molar-mass";
