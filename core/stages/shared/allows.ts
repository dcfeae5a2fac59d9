import type { StageAllows } from "../../change";

/** Spectra belong to a whole stage. */
export const stageSpectra: StageAllows["trace"] = (xUnit, ofTrial) => xUnit === "nm" && !ofTrial;
