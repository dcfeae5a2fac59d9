import type { ComputedStage } from "~/core/method";
import type { MethodDraft, SharedParts, StageDraft } from "../draft-types";
import { type Phrase } from "~/core/text";

/** One way in which a stage of a kind is begun. */
export interface Starter {
  readonly button: Phrase;
  /**
   * The method with the new stage, and with what belongs to it.
   *
   * @param fresh A stage of the kind that says nothing yet; further ones take keys that begin with its own.
   */
  readonly begin: (draft: MethodDraft, fresh: StageDraft) => MethodDraft;
}

/** How stages of one kind are written in the editor. */
export interface EditedKind<S extends ComputedStage = ComputedStage> {
  /** What it is called there. */
  readonly words: Phrase;
  /** How new ones are begun. */
  readonly starters: readonly Starter[];
  /** Whether a stage can be made one of this kind while it is written, and back. */
  readonly switchable: boolean;
  /** What only this kind says, as a draft has it. */
  readonly draft: (stage: S) => Partial<StageDraft>;
  /** The stage that a draft means, from what all kinds say alike. */
  readonly stage: (draft: StageDraft, shared: SharedParts) => S;
  /** What is missing before it can be used, in words. */
  readonly gaps: (stage: S) => Phrase[];
  /** The result that made-up readings shall come to; undefined where it is not said yet, null where none is needed. */
  readonly presumed: (stage: S) => number | undefined | null;
}
