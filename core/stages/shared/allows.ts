import type { StageAllows } from "../../change";
import { msg } from "../../text";

/** Spectra belong to a whole stage. */
export const stageSpectra: StageAllows["trace"] = (xUnit, ofTrial) => xUnit === "nm" && !ofTrial;

/** Where a stage is not done since something was not read. */
export const notAllRead = msg`not everything is read yet`;
