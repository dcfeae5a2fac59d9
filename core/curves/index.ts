export * from "./branches";
export * from "./end-points";
export * from "./fit-acid";
export * from "./gran";
export * from "./next-addition";
export { type CurvePoint, firstDerivative, inOrder, secondDerivative, type Slope } from "./points";
export * from "./read-curve";
export * from "./interpret";
