import type { CompiledCalibration } from "./compile";
import type { CalibrationEvaluation } from "../shared/evaluation";
import type { StageTools } from "../tools";
import { calibrationPlanning } from "./plan";
import { performCalibration } from "./simulate";
import { calibrationWorking } from "./working";

export const calibrationTools: StageTools<CompiledCalibration, CalibrationEvaluation> = {
  planning: calibrationPlanning,
  simulate: performCalibration,
  working: calibrationWorking,
};
