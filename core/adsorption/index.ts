export * from "./isotherms";
