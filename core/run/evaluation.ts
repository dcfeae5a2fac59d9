import type { CombinedResult, Share } from "../judgement";
import type { Check } from "../measure";
import type { Quantity } from "../quantity";
import type { Field } from "./fields";
import type { StageDefinition, TitrationStage } from "./method";
import type { Observation, TrialRecord } from "./record";

/** A value with its ± rounded for people, by the house's style. */
export interface Shown {
  readonly value: string;
  readonly plusMinus: string;
  readonly unit: string;
  /** "0.10214 ± 0.00020 mol/L" */
  readonly text: string;
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
  /** What must agree, in mL: the titer, or the titer per the stage's reference amount. */
  readonly compared: number | null;
  readonly cautions: readonly Check[];
}

export interface AgreementView {
  /** "titer, mL" or "titer, mL, per 0.50 g" */
  readonly label: string;
  readonly widthMl: number;
  readonly needed: number;
  /** Ids of the best concordant set. */
  readonly members: readonly string[];
  readonly spreadMl: number;
  readonly tied: boolean;
  /** Where the next compared value would join the set; null without a set. */
  readonly window: readonly [number, number] | null;
  readonly closed: boolean;
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
  readonly shown: Shown | null;
  readonly shares: readonly Share[];
  readonly verdict: Verdict;
  /** For the trial that is being carried out, or for the next one. */
  readonly guidance: Guidance | null;
  /** What each field of the current or next trial is likely to be, by field key: carried from the trial before. */
  readonly proposals: ReadonlyMap<string, string>;
  readonly cautions: readonly Check[];
}

export interface ConcludeEvaluation {
  readonly kind: "conclude";
  readonly key: string;
  readonly done: boolean;
  readonly definition: Extract<StageDefinition, { kind: "conclude" }>;
}

export type StageEvaluation = TitrationEvaluation | ConcludeEvaluation;

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
