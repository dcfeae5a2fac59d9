import { perOf, type PreparationStage } from "../../method";
import { success } from "../../result";
import { capitalized, uncapitalized, msg } from "../../text";
import type { CompiledStage } from "../compiled";
import { type MethodProblem, problemOf } from "../problem";
import { photometerProblem } from "../shared/compile";
import type { StageKind } from "../kind";
import { heldReasons, notAllRead, stageSpectra } from "../shared/allows";
import type { PreparationEvaluation } from "../shared/evaluation";
import { evaluateMade } from "./evaluate";

/** What is made once has no trials to read for. */
function preparationProblem(stage: PreparationStage): MethodProblem | null {
  const at = stage.inputs.findIndex((input) => perOf(input) === "trial");
  const odd = stage.inputs[at];
  if (odd) return problemOf("trial-in-preparation", { symbol: odd.symbol }, "inputs", at);
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
  // A wavelength that is chosen is held against nothing.
  allows: ({ spectra }) => ({
    ...{ trials: false, trace: stageSpectra, expects: false, choices: {} },
    holds: spectra === undefined,
  }),
  evaluate: evaluateMade,
  begun: ({ stageFields }) => stageFields.some(({ present }) => present),
  fact: ({ definition, stageFields }) => {
    if (definition.spectra) return msg`not chosen yet`;
    return stageFields.some(({ present }) => present) ? msg`being made` : msg`not made yet`;
  },
  reasons: heldReasons,
  unfinished: () => notAllRead,
  next: ({ problem, missing }) => problem ?? (missing ? capitalized(uncapitalized(missing.label)) : ""),
};
