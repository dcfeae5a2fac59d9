import type { StageAllows } from "../change";
import type { ComputedStage, Method } from "../method";
import type { StageRecord } from "../record";
import type { Result } from "../result";
import type { CompiledStage } from "./compiled";
import type { MethodProblem } from "./problem";
import type { Checked, Fitted } from "./shared/compile";
import type { ComputedEvaluation } from "./shared/evaluation";
import type { StageContext } from "./shared/stage";
import { type Phrase } from "../text";

/** All that is particular to one kind of stage: its check, what it computes, what it says. Its tools stand in `tools.ts`. */
export interface StageKind<
  D extends ComputedStage,
  C extends CompiledStage<D>,
  E extends ComputedEvaluation,
> {
  /** What is wrong with a stage of the right shape, before its relations are looked at. */
  readonly problem: (definition: D, method: Method) => MethodProblem | null;
  /** Symbols that a fit yields for its relations. */
  readonly fitted: (definition: D) => readonly Fitted[];
  /** Its form for the evaluation, with what the kind parses beside the relations. */
  readonly compile: (definition: D, checked: Checked, method: Method) => Result<C, MethodProblem>;
  /** What can be changed in it, beside readings of its fields. */
  readonly allows: (definition: D) => StageAllows;
  /** What follows from what was read. */
  readonly evaluate: (stage: C, record: StageRecord, context: StageContext) => E;
  /** True once anything was read in it. */
  readonly begun: (stage: E) => boolean;
  /** How far it is, for its bead of the chain, while it has no result. */
  readonly fact: (stage: E) => Phrase;
  /** What speaks for its result, or against it, at the end: verdict, agreement, what it was held against. */
  readonly reasons: (stage: E) => readonly Phrase[];
  /** Why the run is not at its end here, behind the stage's title. */
  readonly unfinished: (stage: E) => Phrase;
  /** What to do next, in one sentence. */
  readonly next: (stage: E) => Phrase;
}
