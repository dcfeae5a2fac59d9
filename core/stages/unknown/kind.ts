import type { UnknownStage } from "../../method";
import { unitsLike } from "../../quantity";
import type { CompiledStage } from "../compiled";
import type { StageKind } from "../kind";
import { notAllRead, stageSpectra } from "../shared/allows";
import type { UnknownEvaluation } from "../shared/evaluation";
import { compileUnknown, unknownProblem } from "./compile";
import { engineOf } from "../late";
import { msg } from "../../text";

export const unknown: StageKind<UnknownStage, CompiledStage<UnknownStage>, UnknownEvaluation> = {
  problem: unknownProblem,
  fitted: () => [],
  compile: compileUnknown,
  allows: ({ result }) => ({
    trials: true,
    trace: stageSpectra,
    holds: true,
    expects: false,
    choices: { unit: unitsLike(result.unit) },
  }),
  evaluate: (stage, record, context) => engineOf("unknown")(stage, record, context),
  begun: ({ trials }) => trials.length > 0,
  fact: ({ agreement: { state }, trials }) => {
    if (state === "apart" || state === "rivals") return msg`flasks disagree`;
    return trials.length === 0 ? msg`not read yet` : msg`being read`;
  },
  reasons: ({ agreement: { text }, acceptance }) =>
    [text, acceptance?.text ?? ""].filter((words) => words !== ""),
  unfinished: () => notAllRead,
  next: ({ next }) => next,
};
