import type { UnknownStage } from "../../method";
import type { CompiledStage } from "../compiled";
import type { StagePlanning } from "../shared/planning";
import { msg } from "../../text";

export const unknownPlanning: StagePlanning<CompiledStage<UnknownStage>> = {
  plan: () => ({ value: null, message: msg`One flask each trial, treated as the standards are` }),
  flasks: (_stage, trials) => trials,
  reagentFlasks: (_stage, trials) => trials,
};
