import type { CurveStage } from "../../method";
import type { CompiledStage } from "../compiled";
import type { CurveStageEvaluation } from "../shared/evaluation";
import type { StageTools } from "../tools";
import { curvePlanning } from "./plan";
import { performCurves } from "./simulate";
import { curveWorking } from "./working";

export const curveTools: StageTools<CompiledStage<CurveStage>, CurveStageEvaluation> = {
  planning: curvePlanning,
  simulate: performCurves,
  working: curveWorking,
};
