export { type AcidStep, type AcidSystem, constantsOf, fractions, room, type Setting } from "./acid";
export * from "./complexes";
export * from "./precipitation";
export * from "./redox";
export * from "./solution";
export * from "./titration-curve";
export { debyeHueckelA, logGammaOfOne, mostIonicStrength, nernstSlope, pKwAt } from "./water";
export * from "./equivalence";
export * from "./indicators";
