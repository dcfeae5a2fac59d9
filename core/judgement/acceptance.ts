import { effectiveDegreesOfFreedom, type Quantity, standardUncertainty, studentT } from "../quantity";

/** Error of a found value against a known or a target one, in percent of the latter, which may not be zero. */
export function percentError(found: number, known: number, style: "signed" | "absolute" = "signed"): number {
  const error = (100 * (found - known)) / known;
  return style === "absolute" ? Math.abs(error) : error;
}

/** What was found of what was there, in percent. */
export const recoveryPercent = (found: number, known: number): number => (100 * found) / known;

export type DilutionDecision = "accept" | "titrate again" | "make again";

/**
 * What to do with a dilution: within the tolerance, done; off at the first titration, titrate the solution that was kept;
 * still off, make a new one. `titrations` counts those that stand behind the error (common practice, no source).
 */
export function dilutionDecision(
  errorPercent: number,
  tolerancePercent: number,
  titrations: number,
): DilutionDecision {
  if (Math.abs(errorPercent) <= tolerancePercent + 1e-9) return "accept";
  return titrations > 1 ? "make again" : "titrate again";
}

export type LimitVerdict = "clearly below" | "clearly above" | "cannot tell";

/**
 * A result against a limit, with the guard band that its own uncertainty asks for: clear when the whole one-sided 95 %
 * interval lies on one side (JCGM 106, 8.3.2, with a risk of 5 %). The limit's own ± counts with it, where it has one.
 */
export function againstLimit(
  result: Quantity,
  limit: Quantity,
): { readonly verdict: LimitVerdict; readonly guardBand: number } {
  const difference: number = result.value - limit.value;
  const u = Math.hypot(standardUncertainty(result), standardUncertainty(limit));
  const guardBand = studentT(0.9, Math.max(1, effectiveDegreesOfFreedom(result))) * u;
  if (Math.abs(difference) <= guardBand) return { verdict: "cannot tell", guardBand };
  return { verdict: difference < 0 ? "clearly below" : "clearly above", guardBand };
}
