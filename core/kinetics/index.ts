export * from "./dependence";
export * from "./orders";
