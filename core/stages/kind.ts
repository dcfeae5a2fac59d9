import type { StageAllows } from "../change";
import type { CompiledMethod, ComputedStage } from "../method";
import type { StageRecord } from "../record";
import type { ComputedEvaluation } from "./shared/evaluation";
import type { StageContext } from "./shared/stage";

/** All that is particular to one kind of stage. */
export interface StageKind<D extends ComputedStage, E extends ComputedEvaluation> {
  /** What can be changed in it, beside readings of its fields. */
  readonly allows: (definition: D) => StageAllows;
  /** What follows from what was read; null where its method has no such stage. */
  readonly evaluate: (
    method: CompiledMethod,
    definition: D,
    record: StageRecord,
    context: StageContext,
  ) => E | null;
  /** True once anything was read in it. */
  readonly begun: (stage: E) => boolean;
  /** How far it is, for its bead of the chain, while it has no result. */
  readonly fact: (stage: E) => string;
  /** What to do next, in one sentence. */
  readonly next: (stage: E) => string;
  /** Symbols that a fit yields for its relations. */
  readonly fitted: (definition: D) => readonly string[];
}
