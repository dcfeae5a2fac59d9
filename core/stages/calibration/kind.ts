import type { CalibrationStage } from "../../method";
import type { StageKind } from "../kind";
import { heldReasons, notAllRead, stageSpectra } from "../shared/allows";
import type { CalibrationEvaluation } from "../shared/evaluation";
import { calibrationProblem, compileCalibration, type CompiledCalibration, lineSymbols } from "./compile";
import { engineOf } from "../late";
import { msg } from "../../text";

export const calibration: StageKind<CalibrationStage, CompiledCalibration, CalibrationEvaluation> = {
  problem: calibrationProblem,
  fitted: lineSymbols,
  compile: compileCalibration,
  allows: () => ({
    trials: true,
    trace: stageSpectra,
    holds: true,
    expects: false,
    choices: {
      model: ["line", "origin", "quadratic"],
      weighting: ["none", "1/s²", "1/x", "1/x²"],
      zero: ["in", "out"],
      blank: ["zeroed", "deducted"],
    },
  }),
  evaluate: (stage, record, context) => engineOf("calibration")(stage, record, context),
  begun: ({ levels, blanks }) => levels.length > 0 || blanks.length > 0,
  fact: ({ levels, ahead }) => {
    const read = levels.filter((l) => l.mean !== null).length;
    return read === 0 ? msg`no standard yet` : msg`${read} of ${Math.max(read, read + ahead.length)} read`;
  },
  reasons: heldReasons,
  unfinished: () => notAllRead,
  next: ({ next }) => next,
};
