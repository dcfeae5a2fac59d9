import type { ComponentType } from "react";
import type { ComputedEvaluation, RunEvaluation } from "~/core/stages";
import type { RunRecord } from "~/core/run";

/** What a working place of a stage is given. */
export interface StageViewProps<E extends ComputedEvaluation> {
  readonly stage: E;
  readonly evaluation: RunEvaluation;
}

/** The screens of one kind of stage. */
export interface StageScreens<E extends ComputedEvaluation> {
  /** Its working place at the bench. */
  readonly View: ComponentType<StageViewProps<E>>;
  /** What belongs beside its result at the end of the run. */
  readonly Facts: ComponentType<{ readonly stage: E; readonly record: RunRecord }>;
  /** Glass to be rinsed at the end. */
  readonly rinse: readonly string[];
}
