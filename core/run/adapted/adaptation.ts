import type { ComputedStage, Method } from "../../method";
import type { Phrase } from "../../text";

/** What a run can do otherwise than its method in one stage, with nothing to be said besides. */
export interface Adaptation {
  /** Whether a stage of a method, as the run follows it now, can be done so. */
  readonly fits: (stage: ComputedStage, method: Method) => boolean;
  readonly apply: (stage: ComputedStage) => ComputedStage;
  /** How it stands in the trail, behind the title of the stage. */
  readonly words: { readonly on: Phrase; readonly off: Phrase };
  /** Why a stage cannot be done so. */
  readonly refused: Phrase;
}
