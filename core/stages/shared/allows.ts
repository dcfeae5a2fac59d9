import type { StageAllows } from "../../change";
import type { ComputedStage } from "../../method";
import { unitsLike } from "../../quantity";

/** What can be changed in a stage, by its kind. */
export function allowsOf(stage: ComputedStage): StageAllows {
  const spectra: StageAllows["trace"] = (xUnit, ofTrial) => xUnit === "nm" && !ofTrial;
  switch (stage.kind) {
    case "preparation":
      return { trials: false, trace: spectra, choices: {} };
    case "titration":
      return { trials: true, trace: spectra, choices: {} };
    case "calibration":
      return {
        trials: true,
        trace: spectra,
        choices: {
          model: ["line", "origin", "quadratic"],
          weighting: ["none", "1/s²", "1/x", "1/x²"],
          zero: ["in", "out"],
          blank: ["zeroed", "deducted"],
        },
      };
    case "unknown":
      return { trials: true, trace: spectra, choices: { unit: unitsLike(stage.result.unit) } };
    case "rate":
      return {
        trials: true,
        trace: (xUnit, ofTrial) => xUnit === "s" || spectra(xUnit, ofTrial),
        choices: { order: ["0", "1", "2"], end: ["fitted"] },
      };
  }
}
