import { plusMinus } from "~/core/judgement";
import { mustHold } from "~/core/result";
import { evaluateRun } from "~/core/evaluate";
import { resultQuantity } from "~/core/stages";
import { simulateRun } from "~/core/simulate";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import type { Shape } from "./shapes";

/** How often a stage's stated 95 % interval held the truth over simulated runs, and how long that took. */
export interface Coverage {
  readonly stage: string;
  readonly part: number;
  /** Root mean square of the departures in units of the stated u: 1 when the ± is neither too wide nor too narrow. */
  readonly spread: number;
}

/** Simulates so many runs of a method from its truth and counts, for every stage, how often the interval holds it. */
export function coverageOf({ method, truth }: Shape, runs: number, firstSeed = 1): Coverage[] {
  const held = new Map<string, number>();
  const squares = new Map<string, number>();
  for (let seed = firstSeed; seed < firstSeed + runs; seed++) {
    const { record, truths } = mustHold(simulateRun({ method, houseRules: defaultHouseRules, truth, seed }));
    for (const stage of evaluateRun(record).stages) {
      const q = resultQuantity(stage);
      if (!q) continue;
      const off = q.value - (truths.get(stage.key) ?? NaN);
      const half = plusMinus(q, "i95");
      held.set(stage.key, (held.get(stage.key) ?? 0) + (Math.abs(off) <= half ? 1 : 0));
      squares.set(stage.key, (squares.get(stage.key) ?? 0) + (off / plusMinus(q, "u")) ** 2);
    }
  }
  return [...held].map(([stage, count]) => ({
    stage,
    part: count / runs,
    spread: Math.sqrt((squares.get(stage) ?? NaN) / runs),
  }));
}
