import { molarMass, parseFormula } from "../chemistry";
import { failure, type Result, success } from "../result";
import { msg } from "../text";

export interface MassPlan {
  readonly grams: number;
  /** The masses that are near enough, g. */
  readonly window: readonly [number, number];
}

/** Masses within this part of the plan are near enough: what counts is the mass weighed. Common practice, no source. */
export const massWindowPart = 0.06;

export interface MassForSolution {
  /** Formula as weighed, water of crystallization with it. */
  readonly formula: string;
  readonly molPerL: number;
  readonly volumeMl: number;
  /** 0 to 100. */
  readonly purityPercent: number;
}

/**
 * The mass of a solid for a solution: m = c V M / P, in g, with the window around it. Says so when the formula does not
 * parse, or a number is not above zero, or the purity is over 100 %.
 */
export function massForSolution({
  formula,
  molPerL,
  volumeMl,
  purityPercent,
}: MassForSolution): Result<MassPlan> {
  const parsed = parseFormula(formula);
  if (!parsed.ok) return parsed;
  if (!(molPerL > 0)) return failure(msg`The concentration must be above zero`);
  if (!(volumeMl > 0)) return failure(msg`The volume must be above zero`);
  if (!(purityPercent > 0)) return failure(msg`The purity must be above zero`);
  if (purityPercent > 100)
    return failure(msg`The purity is over 100 %: no solid holds more than all of itself`);
  const grams = ((molPerL * volumeMl) / 1000) * molarMass(formula).value * (100 / purityPercent);
  return success({ grams, window: [grams * (1 - massWindowPart), grams * (1 + massWindowPart)] });
}
