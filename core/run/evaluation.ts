import type { CombinedResult, DilutionDecision, LimitVerdict, OutlierAdvice, Share } from "../judgement";
import type { Check } from "../measure";
import type { Quantity, Significant } from "../quantity";
import type { Field } from "./fields";
import type { FurtherResultDefinition, PreparationStage, StageDefinition, TitrationStage } from "./method";
import type { Observation, TrialRecord } from "./record";

/** A value with its ± rounded for people, by the house's style. */
export interface Shown {
  readonly value: string;
  readonly plusMinus: string;
  readonly unit: string;
  /** "0.10214 ± 0.00020 mol/L" */
  readonly text: string;
  /** The nearest whole number, for a count. */
  readonly nearestWhole?: string;
}

export interface FieldState {
  readonly field: Field;
  /** What holds now, or null where nothing has been read yet. */
  readonly present: Observation | null;
  readonly history: readonly Observation[];
}

export interface TrialEvaluation {
  readonly id: string;
  readonly record: TrialRecord;
  /** "rough", "1", or the label that people gave it. */
  readonly name: string;
  readonly fields: readonly FieldState[];
  /** The first field that is still to be read; null when the trial is complete. */
  readonly missing: Field | null;
  /** True when it may be judged and averaged: complete, fine, not struck out. */
  readonly eligible: boolean;
  /** Every symbol that could be computed. */
  readonly symbols: ReadonlyMap<string, Quantity>;
  readonly titerMl: number | null;
  readonly result: Quantity | null;
  readonly shownResult: Shown | null;
  /** What must agree, in the unit of the agreement: the titer, the titer per reference amount, or the result. */
  readonly compared: number | null;
  /** Significant figures of every symbol by the taught rules; empty where the house rounds by the ±. */
  readonly significance: ReadonlyMap<string, Significant>;
  /** Why nothing could be computed although all was read, in words. */
  readonly problem: string | null;
  readonly cautions: readonly Check[];
}

export interface AgreementView {
  /** "titer, mL" or "titer, mL, per 0.50 g" or "result, as mL of titer" */
  readonly label: string;
  /** Unit of the values compared: mL, or the result's own. */
  readonly unit: string;
  /** Decimals that the values compared are shown with. */
  readonly decimals: number;
  /** The house's rule in words. */
  readonly rule: string;
  readonly needed: number;
  /** Ids of the best concordant set. */
  readonly members: readonly string[];
  /** Highest minus lowest of the set, in the unit. */
  readonly spread: number;
  readonly tied: boolean;
  /** Where the next compared value would join the set; null without a set. */
  readonly window: readonly [number, number] | null;
  readonly closed: boolean;
  /** What the house's test for outliers says; it advises only. */
  readonly outlier: OutlierAdvice | null;
}

/** The result held against what it should be. */
export type AcceptanceView =
  | {
      readonly against: "value";
      readonly errorPercent: number;
      readonly recoveryPercent: number;
      readonly within: boolean;
      readonly decision: DilutionDecision | null;
      readonly text: string;
    }
  | {
      readonly against: "limit";
      readonly verdict: LimitVerdict;
      /** True when it passes, false when it fails, null when that cannot be told. */
      readonly passes: boolean | null;
      readonly text: string;
    };

/** A result beside the main one, or the same in other units. */
export interface FurtherResult {
  readonly definition: FurtherResultDefinition;
  readonly quantity: Quantity;
  readonly shown: Shown;
}

/** What would make the ± smaller. */
export interface Improvement {
  /** Id of the largest share of the variance. */
  readonly share: string;
  readonly part: number;
  /** What to do about it, as the end of a sentence: "what would halve that: weighing 0.8 g instead of 0.4 g". */
  readonly remedy: string;
  /** All of it in words. */
  readonly text: string;
}

export interface Verdict {
  readonly state: "empty" | "collecting" | "agreed";
  readonly reason: string;
  /** What to do next. */
  readonly next: string;
}

export interface Guidance {
  readonly titerMl: number;
  readonly from: "trials" | "rough" | "theory";
  readonly endNear: number | null;
  readonly slowAt: number | null;
  /** False when the end lies beyond the last mark. */
  readonly roomLeft: boolean;
  /** Titers of this flask that would join the concordant set. */
  readonly joins: readonly [number, number] | null;
  readonly text: string;
}

export interface TitrationEvaluation {
  readonly kind: "titration";
  readonly key: string;
  readonly definition: TitrationStage;
  readonly done: boolean;
  readonly stageFields: readonly FieldState[];
  readonly trials: readonly TrialEvaluation[];
  /** The trial that is being carried out: the last one that lacks a reading and is not struck out. */
  readonly current: TrialEvaluation | null;
  readonly agreement: AgreementView;
  readonly combined: CombinedResult | null;
  /** Why there is no result although a trial is complete, in words. */
  readonly problem: string | null;
  readonly shown: Shown | null;
  readonly also: readonly FurtherResult[];
  readonly shares: readonly Share[];
  readonly improvement: Improvement | null;
  readonly acceptance: AcceptanceView | null;
  readonly verdict: Verdict;
  /** For the trial that is being carried out, or for the next one. */
  readonly guidance: Guidance | null;
  /** What each field of the current or next trial is likely to be, by field key: carried from the trial before. */
  readonly proposals: ReadonlyMap<string, string>;
  readonly cautions: readonly Check[];
}

/** Something made once: what was read, and what follows. */
export interface PreparationEvaluation {
  readonly kind: "preparation";
  readonly key: string;
  readonly definition: PreparationStage;
  readonly done: boolean;
  readonly stageFields: readonly FieldState[];
  /** The first field that is still to be read. */
  readonly missing: Field | null;
  readonly symbols: ReadonlyMap<string, Quantity>;
  readonly significance: ReadonlyMap<string, Significant>;
  readonly quantity: Quantity | null;
  readonly shown: Shown | null;
  readonly also: readonly FurtherResult[];
  readonly shares: readonly Share[];
  readonly problem: string | null;
  readonly cautions: readonly Check[];
}

export interface ConcludeEvaluation {
  readonly kind: "conclude";
  readonly key: string;
  readonly done: boolean;
  readonly definition: Extract<StageDefinition, { kind: "conclude" }>;
}

export type ComputedEvaluation = TitrationEvaluation | PreparationEvaluation;
export type StageEvaluation = ComputedEvaluation | ConcludeEvaluation;

/** The quantity of a stage's main result, where there is one yet. */
export const resultQuantity = (stage: ComputedEvaluation): Quantity | null =>
  stage.kind === "titration" ? (stage.combined?.quantity ?? null) : stage.quantity;

export interface Bead {
  readonly key: string;
  readonly title: string;
  readonly state: "done" | "current" | "ahead";
  /** The stage's key number, or how far it is. */
  readonly fact: string;
}

export interface RunEvaluation {
  readonly stages: readonly StageEvaluation[];
  readonly chain: readonly Bead[];
  /** Key of the stage that the work is at. */
  readonly currentStage: string;
  readonly next: string;
  /** State in words, for lists. */
  readonly state: string;
  readonly result: Shown | null;
}
