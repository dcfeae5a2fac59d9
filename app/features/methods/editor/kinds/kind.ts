import type { ComputedStage } from "~/core/method";
import type { SharedParts, StageDraft } from "../draft-types";
import { type Phrase } from "~/core/text";

/** How stages of one kind are written in the editor. */
export interface EditedKind<S extends ComputedStage = ComputedStage> {
  /** What it is called there. */
  readonly words: Phrase;
  /** How a new one begins; null where none is begun in the editor, only changed. */
  readonly starter: {
    readonly button: Phrase;
    /** Whether it comes before all others, as what is made comes before what is titrated with it. */
    readonly first: boolean;
    readonly values: Partial<StageDraft>;
  } | null;
  /** What only this kind says, as a draft has it. */
  readonly draft: (stage: S) => Partial<StageDraft>;
  /** The stage that a draft means, from what all kinds say alike. */
  readonly stage: (draft: StageDraft, shared: SharedParts) => S;
  /** What is missing before it can be used, in words. */
  readonly gaps: (stage: S) => Phrase[];
  /** The result that made-up readings shall come to; undefined where it is not said yet, null where none is needed. */
  readonly presumed: (stage: S) => number | undefined | null;
}
