import type { StageContext, ComputedEvaluation, CompiledStage, EarlierResult, Footing } from "../stages";
import type { StageRecord } from "../record";
import { type Phrase } from "../text";

/** What the evaluation of a stage follows from, beside its record. */
export interface Basis {
  readonly compiled: CompiledStage;
  readonly rules: StageContext["rules"];
  readonly open: boolean;
  readonly hand: string | undefined;
  readonly next: Phrase | null;
  /** The stages before, as they were evaluated. */
  readonly before: readonly ComputedEvaluation[];
}

/** A stage as it was evaluated, and what later ones may use of it; with the error where its evaluation failed. */
export interface FoundStage {
  readonly evaluated: ComputedEvaluation;
  readonly footing: Footing;
  readonly later: ReadonlyMap<string, EarlierResult>;
  readonly error?: unknown;
}

/** Gives what was found of a record before, or finds it. */
export type Remembering = (record: StageRecord, basis: Basis, find: () => FoundStage) => FoundStage;

/** Remembers nothing. */
export const withoutMemory: Remembering = (_record, _basis, find) => find();

/**
 * What is kept of a basis: the stages before are held weakly, since a stage that is worked at is evaluated anew after each reading,
 * and would be kept here only because a later stage once followed from it.
 */
interface KeptBasis extends Omit<Basis, "before"> {
  readonly before: readonly WeakRef<ComputedEvaluation>[];
}

const keptOf = (basis: Basis): KeptBasis => ({
  ...basis,
  before: basis.before.map((stage) => new WeakRef(stage)),
});

const same = (a: KeptBasis, b: Basis): boolean =>
  a.compiled === b.compiled &&
  a.rules === b.rules &&
  a.open === b.open &&
  a.hand === b.hand &&
  a.next === b.next &&
  a.before.length === b.before.length &&
  a.before.every((stage, i) => stage.deref() === b.before[i]);

/**
 * Gives what was found of a record as long as nothing that it follows from is another object: changes leave the stages that they do
 * not touch as they are. Only for records that are never changed in place. One finding a record; it goes when its record does.
 * What is asked for once alone, as the stage that is being worked at is after each reading, is not kept: it would only be in
 * the way of the next.
 */
export function rememberedStages(): Remembering {
  const asked = new WeakSet<StageRecord>();
  const known = new WeakMap<StageRecord, { readonly basis: KeptBasis; readonly found: FoundStage }>();
  return (record, basis, find) => {
    const there = known.get(record);
    if (there && same(there.basis, basis)) return there.found;
    const found = find();
    if (asked.has(record)) known.set(record, { basis: keptOf(basis), found });
    else asked.add(record);
    return found;
  };
}
