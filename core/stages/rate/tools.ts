import type { RateStage } from "../../method";
import type { CompiledStage } from "../compiled";
import type { RateEvaluation } from "../shared/evaluation";
import type { StageTools } from "../tools";
import { ratePlanning } from "./plan";
import { performRate } from "./simulate";
import { rateWorking } from "./working";

export const rateTools: StageTools<CompiledStage<RateStage>, RateEvaluation> = {
  planning: ratePlanning,
  simulate: performRate,
  working: rateWorking,
};
