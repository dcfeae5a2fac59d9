export * from "./dimensions";
export * from "./evaluate";
export * from "./expression";
export * from "./parse";
export * from "./significance";
export * from "./solve";
export * from "./spreadsheet";
export * from "./typeset";
