import type { PreparationStage } from "../../method";
import type { CompiledStage } from "../compiled";
import type { PreparationEvaluation } from "../shared/evaluation";
import type { StageTools } from "../tools";
import { preparationPlanning } from "./plan";
import { performPreparation } from "./simulate";

export const preparationTools: StageTools<CompiledStage<PreparationStage>, PreparationEvaluation> = {
  planning: preparationPlanning,
  simulate: performPreparation,
  working: { fitted: () => [] },
};
