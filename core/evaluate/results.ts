import { standardUncertainty, unitOf } from "../quantity";
import { resultQuantity, type RunEvaluation } from "../stages";
import type { Phrase } from "../text";

/** One result of a run. */
export interface RunResult {
  readonly stageKey: string;
  readonly definition: { readonly name: Phrase; readonly symbol: string; readonly unit: string };
  /** In the unit, unrounded. */
  readonly value: number;
  /** Its standard uncertainty, in the unit. */
  readonly u: number;
  readonly shown: Phrase;
  /** True for the result that the run was for: the main one of its last stage. */
  readonly main: boolean;
}

/** All results of a run, stage by stage: the main one of each first, then the further ones. */
export function resultsIn({ stages }: Pick<RunEvaluation, "stages">): RunResult[] {
  const last = stages.at(-1);
  return stages.flatMap((stage) => {
    const quantity = resultQuantity(stage);
    const found = [
      ...(quantity && stage.shown
        ? [{ definition: stage.definition.result, quantity, shown: stage.shown, main: stage === last }]
        : []),
      ...stage.also.map((also) => ({ ...also, main: false })),
    ];
    return found.map(({ definition, quantity: q, shown, main }): RunResult => {
      const { factor } = unitOf(definition.unit);
      const [value, u] = [q.value / factor, standardUncertainty(q) / factor];
      return { stageKey: stage.key, definition, value, u, shown: shown.text, main };
    });
  });
}

/** What lists show of a run, and its results: plain, and small beside the evaluation that it comes from. */
export interface ListedRun extends Pick<RunEvaluation, "chain" | "next" | "state" | "result"> {
  readonly results: readonly RunResult[];
}

export const listedRun = (evaluation: RunEvaluation): ListedRun => {
  const { chain, next, state, result } = evaluation;
  return { chain, next, state, result, results: resultsIn(evaluation) };
};
