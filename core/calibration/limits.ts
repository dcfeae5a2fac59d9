import { standardDeviation } from "../statistics";
import type { CalibrationFit } from "./fit";

/** The smallest amounts that can be told from nothing, and that can be stated, in the unit of the axis. */
export interface DetectionLimits {
  readonly detection: number;
  readonly quantitation: number;
}

/** 3.3 s/b and 10 s/b (ICH Q2(R1), 6.3 and 7.3; from memory). */
const limits = (s: number, fit: CalibrationFit): DetectionLimits => {
  const slope = Math.abs(fit.slopeAt(fit.range[0]));
  return { detection: (3.3 * s) / slope, quantitation: (10 * s) / slope };
};

/** From the scatter about the line at its lower end. Null while the line has no scatter to show. */
export const limitsFromLine = (fit: CalibrationFit): DetectionLimits | null =>
  fit.degreesOfFreedom > 0 && fit.residualSd > 0
    ? limits(fit.residualSd / Math.sqrt(fit.weightAt(fit.range[0])), fit)
    : null;

/** Blanks that a standard deviation is taken of, at least. */
export const fewestBlanks = 3;

/** From repeated readings of the blank; null for fewer than three, or where they do not scatter. */
export function limitsFromBlanks(blanks: readonly number[], fit: CalibrationFit): DetectionLimits | null {
  const s = standardDeviation(blanks);
  return blanks.length >= fewestBlanks && s > 0 ? limits(s, fit) : null;
}
