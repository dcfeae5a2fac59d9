import type { StageRecord } from "../record";
import type { Result } from "../result";
import type { HouseRules } from "../rules";
import type { Bench } from "./bench/bench";
import type { CompiledStage } from "./compiled";
import type { Board, WorkingStep } from "./shared/board";
import type { ComputedEvaluation } from "./shared/evaluation";
import type { StagePlanning } from "./shared/planning";
import { type Phrase } from "../text";

/** How the working of a kind is written, beside what all kinds have: readings, relations, mean and its ±. */
export interface StageWorking<C extends CompiledStage, E extends ComputedEvaluation> {
  /** Steps between the readings and the relations: how a fit, or what is read off one, was calculated. Of one trial, where there are any. */
  readonly fitted: (board: Board, compiled: C, stage: E, trialId: string | null) => WorkingStep[];
  /** What the mean is taken of, in words; "trials" where nothing is said. */
  readonly members?: Phrase;
  /** A mean that is not that of the results; null where it is. */
  readonly mean?: (stage: E, rules: HouseRules) => WorkingStep | null;
}

/** What is asked of a kind of stage beside its evaluation. */
export interface StageTools<C extends CompiledStage, E extends ComputedEvaluation> {
  readonly planning: StagePlanning<C>;
  /**
   * Performs a stage on a simulated bench: its readings go into the record, what is truly so onto the bench. Gives what its
   * main result truly is, in base units; or why it cannot be made, as where a titer is beyond the burette.
   */
  readonly simulate: (
    stage: C,
    record: StageRecord,
    shared: ReadonlyMap<string, number>,
    bench: Bench,
  ) => Result<number>;
  readonly working: StageWorking<C, E>;
}
