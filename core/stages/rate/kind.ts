import type { RateStage } from "../../method";
import type { StageKind } from "../kind";
import { stageSpectra } from "../shared/allows";
import type { RateEvaluation } from "../shared/evaluation";
import { evaluateRate } from "./evaluate";

export const rate: StageKind<RateStage, RateEvaluation> = {
  allows: () => ({
    trials: true,
    trace: (xUnit, ofTrial) => xUnit === "s" || stageSpectra(xUnit, ofTrial),
    choices: { order: ["0", "1", "2"], end: ["fitted"] },
  }),
  evaluate: (method, definition, record, context) => {
    const compiled = method.assays.get(definition.key);
    return compiled ? evaluateRate(compiled, definition, record, context) : null;
  },
  begun: ({ trials }) => trials.length > 0,
  fact: ({ trials }) => (trials.length === 0 ? "not read yet" : "being read"),
  next: ({ next }) => next,
  fitted: (definition) => [definition.rate.symbol],
};
