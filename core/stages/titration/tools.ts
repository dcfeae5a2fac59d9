import type { CompiledTitration } from "./compile";
import type { TitrationEvaluation } from "../shared/evaluation";
import type { StageTools } from "../tools";
import { titrationPlanning } from "./plan";
import { performTitration } from "./simulate";
import { titrationWorking } from "./working";

export const titrationTools: StageTools<CompiledTitration, TitrationEvaluation> = {
  planning: titrationPlanning,
  simulate: performTitration,
  working: titrationWorking,
};
