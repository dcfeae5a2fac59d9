export * from "./compare";
export * from "./draw-leaf";
export * from "./program";
export * from "./propagate";
export * from "./random";
export * from "./select";
