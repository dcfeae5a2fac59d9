import type { UnknownStage } from "../../method";
import { unitsLike } from "../../quantity";
import type { StageKind } from "../kind";
import { stageSpectra } from "../shared/allows";
import type { UnknownEvaluation } from "../shared/evaluation";
import { evaluateUnknown } from "./evaluate";

export const unknown: StageKind<UnknownStage, UnknownEvaluation> = {
  allows: ({ result }) => ({ trials: true, trace: stageSpectra, choices: { unit: unitsLike(result.unit) } }),
  evaluate: (method, definition, record, context) => {
    const compiled = method.assays.get(definition.key);
    return compiled ? evaluateUnknown(compiled, definition, record, context) : null;
  },
  begun: ({ trials }) => trials.length > 0,
  fact: ({ agreement: { state }, trials }) => {
    if (state === "apart" || state === "rivals") return "flasks disagree";
    return trials.length === 0 ? "not read yet" : "being read";
  },
  next: ({ next }) => next,
  fitted: () => [],
};
