export * from "./absorbance";
export * from "./advice";
export * from "./bootstrap";
export * from "./fit";
export * from "./inverse";
export * from "./least-squares";
export * from "./limits";
