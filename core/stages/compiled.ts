import type { ComputedStage, Method } from "../method";
import type { Relation, Stoichiometry } from "../relation";
import { type Phrase } from "../text";

export interface CompiledLine extends Relation {
  readonly title: Phrase;
  readonly unit: string;
}

/** A stage with its relations parsed: what the evaluation works on. Kinds add what they parse beside. */
export interface CompiledStage<D extends ComputedStage = ComputedStage> {
  readonly definition: D;
  readonly lines: readonly CompiledLine[];
}

export interface CompiledMethod {
  readonly method: Method;
  /** By key, in the order of the method. */
  readonly stages: ReadonlyMap<string, CompiledStage>;
  readonly stoichiometry: Stoichiometry;
}

/** The compiled form of a stage, by its key. */
export const compiledStage = ({ stages }: CompiledMethod, key: string): CompiledStage | undefined =>
  stages.get(key);
