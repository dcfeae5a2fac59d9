export * from "./absorbers";
export * from "./instrument";
export * from "./photometer";
