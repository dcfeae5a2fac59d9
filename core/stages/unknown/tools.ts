import type { UnknownStage } from "../../method";
import type { CompiledStage } from "../compiled";
import type { UnknownEvaluation } from "../shared/evaluation";
import type { StageTools } from "../tools";
import { unknownPlanning } from "./plan";
import { performUnknown } from "./simulate";
import { unknownWorking } from "./working";

export const unknownTools: StageTools<CompiledStage<UnknownStage>, UnknownEvaluation> = {
  planning: unknownPlanning,
  simulate: performUnknown,
  working: unknownWorking,
};
