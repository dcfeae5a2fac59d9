import type { RateStage } from "../../method";
import type { CompiledStage } from "../compiled";
import type { StagePlanning } from "../shared/planning";
import { msg } from "../../text";

export const ratePlanning: StagePlanning<CompiledStage<RateStage>> = {
  plan: () => ({ value: null, message: msg`One cuvette for each kinetic run, read every second` }),
  flasks: (_stage, trials) => trials,
  reagentFlasks: (_stage, trials) => trials,
};
