import type { StageAllows } from "../../change";
import { msg, type Phrase } from "../../text";
import type { AcceptanceView } from "./evaluation";

/** Spectra belong to a whole stage. */
export const stageSpectra: StageAllows["trace"] = (xUnit, ofTrial) => xUnit === "nm" && !ofTrial;

/** Where a stage is not done since something was not read. */
export const notAllRead = msg`not everything is read yet`;

/** Why a run concludes as it does, where all that is judged of its result is what it is held against. */
export const heldReasons = ({
  acceptance,
}: {
  readonly acceptance: AcceptanceView | null;
}): readonly Phrase[] => (acceptance ? [acceptance.text] : []);
