import { perOf, type PreparationStage } from "../../method";
import { type Problem, success } from "../../result";
import { capitalized, uncapitalized } from "../../text";
import type { CompiledStage } from "../compiled";
import { photometerProblem } from "../shared/compile";
import type { StageKind } from "../kind";
import { notAllRead, stageSpectra } from "../shared/allows";
import type { PreparationEvaluation } from "../shared/evaluation";
import { evaluateMade } from "./evaluate";

/** What is made once has no trials to read for. */
function preparationProblem(stage: PreparationStage): Problem | null {
  const odd = stage.inputs.find((input) => perOf(input) === "trial");
  if (odd) return { message: `${odd.symbol} is read for each trial, but a preparation has none` };
  return photometerProblem(stage);
}

export const preparation: StageKind<
  PreparationStage,
  CompiledStage<PreparationStage>,
  PreparationEvaluation
> = {
  problem: preparationProblem,
  fitted: () => [],
  compile: (definition, { lines }) => success({ definition, lines }),
  allows: () => ({ trials: false, trace: stageSpectra, choices: {} }),
  evaluate: evaluateMade,
  begun: ({ stageFields }) => stageFields.some(({ present }) => present),
  fact: ({ definition, stageFields }) => {
    if (definition.spectra) return "not chosen yet";
    return stageFields.some(({ present }) => present) ? "being made" : "not made yet";
  },
  reasons: () => [],
  unfinished: () => notAllRead,
  next: ({ problem, missing }) => problem ?? (missing ? capitalized(uncapitalized(missing.label)) : ""),
};
