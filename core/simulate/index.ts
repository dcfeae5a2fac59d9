export { type BenchErrors, carefulHands, type SimulatedRun, type SimulateOptions, type Truth } from "./bench";
export { type Photometer, presumedRate, quietPhotometer, usualAbsorbance, usualConstant } from "./photometer";
export * from "./simulate-run";
export * from "./world";
