import { evaluateNumber, parseRelation } from "../relation";
import type { ComputedStage, TitrationStage } from "./schema";
import { titerOf } from "./practice";

const known = new WeakMap<ComputedStage, boolean>();

/**
 * Whether a titer of nothing gives a result: true for a blank and for an amount that the titer is a measure of, false where the
 * result is had by dividing by it, as a concentration is. All else is taken as one, since only the titer matters.
 */
export function titerMayBeZero(stage: ComputedStage): boolean {
  if (stage.kind !== "titration") return false;
  const there = known.get(stage);
  if (there !== undefined) return there;
  const found = Number.isFinite(resultAtZero(stage));
  known.set(stage, found);
  return found;
}

function resultAtZero(stage: TitrationStage): number {
  const numbers = new Map<string, number>(
    stage.inputs.map(({ symbol }): [string, number] => [symbol, 1]),
  ).set(titerOf(stage), 0);
  const stoichiometry = { ratio: () => [1, 1] as const, equivalents: () => 1 };
  for (const { relation } of stage.relations) {
    const parsed = parseRelation(relation);
    if (!parsed.ok) return NaN;
    numbers.set(parsed.value.symbol, evaluateNumber(parsed.value.expression, { numbers, stoichiometry }));
  }
  return numbers.get(stage.result.symbol) ?? NaN;
}
