import type { RateStage } from "../../method";
import type { CompiledStage } from "../compiled";
import { assayProblem } from "../shared/compile";
import type { StageKind } from "../kind";
import { heldReasons, notAllRead, stageSpectra } from "../shared/allows";
import type { RateEvaluation } from "../shared/evaluation";
import { success } from "../../result";
import { engineOf } from "../late";
import { msg } from "../../text";

export const rate: StageKind<RateStage, CompiledStage<RateStage>, RateEvaluation> = {
  problem: (definition) => assayProblem(definition, "trace"),
  fitted: ({ rate: { symbol } }) => [{ symbol, unit: "1/s" }],
  compile: (definition, { lines }) => success({ definition, lines }),
  allows: () => ({
    trials: true,
    trace: (xUnit, ofTrial) => xUnit === "s" || stageSpectra(xUnit, ofTrial),
    holds: true,
    expects: false,
    choices: { order: ["0", "1", "2"], end: ["fitted"] },
  }),
  evaluate: (stage, record, context) => engineOf("rate")(stage, record, context),
  begun: ({ trials }) => trials.length > 0,
  fact: ({ trials }) => (trials.length === 0 ? msg`not read yet` : msg`being read`),
  reasons: heldReasons,
  unfinished: () => notAllRead,
  next: ({ next }) => next,
};
