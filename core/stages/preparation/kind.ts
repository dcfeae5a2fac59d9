import type { PreparationStage } from "../../method";
import { capitalized, uncapitalized } from "../../text";
import type { StageKind } from "../kind";
import { stageSpectra } from "../shared/allows";
import type { PreparationEvaluation } from "../shared/evaluation";
import { evaluateMade } from "./evaluate";

export const preparation: StageKind<PreparationStage, PreparationEvaluation> = {
  allows: () => ({ trials: false, trace: stageSpectra, choices: {} }),
  evaluate: (method, { key }, record, context) => {
    const compiled = method.preparations.get(key);
    return compiled ? evaluateMade(compiled, record, context) : null;
  },
  begun: ({ stageFields }) => stageFields.some(({ present }) => present),
  fact: ({ definition, stageFields }) => {
    if (definition.spectra) return "not chosen yet";
    return stageFields.some(({ present }) => present) ? "being made" : "not made yet";
  },
  next: ({ problem, missing }) => problem ?? (missing ? capitalized(uncapitalized(missing.label)) : ""),
  fitted: () => [],
};
