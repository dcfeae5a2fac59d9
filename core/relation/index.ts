export * from "./dimensions";
export * from "./evaluate";
export * from "./parse";
export * from "./solve";
export * from "./typeset";
