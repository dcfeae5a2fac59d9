import { equivalentsIn, equivalentsOfResult, inputOf, type Method } from "../method";
import type { StagePlan } from "../stages";

/**
 * Equivalents in a mole of what is typed in a stage of a plan: an amount by its symbol, "result", or "stock" of the titrant; null where the
 * method does not tell.
 */
export function equivalentsTyped(method: Method, { key, titrant }: StagePlan, typed: string): number | null {
  const stage = method.stages.find((one) => one.key === key);
  if (!stage) return null;
  if (typed === "result") return equivalentsOfResult(method, stage);
  const input = inputOf(stage, typed);
  const of = typed === "stock" ? titrant : input && "of" in input ? input.of : undefined;
  return of ? equivalentsIn(method, of) : null;
}
