import type { StageAllows } from "../change";
import type { CompiledMethod, ComputedStage } from "../method";
import type { StageRecord } from "../record";
import { calibration } from "./calibration/kind";
import type { StageKind } from "./kind";
import { preparation } from "./preparation/kind";
import { rate } from "./rate/kind";
import type { ComputedEvaluation } from "./shared/evaluation";
import type { StageContext } from "./shared/stage";
import { titration } from "./titration/kind";
import { unknown } from "./unknown/kind";

type Kind = ComputedStage["kind"];
type Kinds = {
  readonly [K in Kind]: StageKind<
    Extract<ComputedStage, { kind: K }>,
    Extract<ComputedEvaluation, { kind: K }>
  >;
};

/** All kinds of stages. */
const kinds: Kinds = { titration, preparation, calibration, unknown, rate };

/** The kind of a stage; the union of stages is matched with the table of kinds here, and nowhere else. */
const kindOf = ({ kind }: { readonly kind: Kind }) =>
  kinds[kind] as unknown as StageKind<ComputedStage, ComputedEvaluation>;

/** What can be changed in a stage, beside readings of its fields. */
export const allowsOf = (definition: ComputedStage): StageAllows => kindOf(definition).allows(definition);

/** What follows from what was read in a stage. */
export const evaluateStage = (
  method: CompiledMethod,
  definition: ComputedStage,
  record: StageRecord,
  context: StageContext,
): ComputedEvaluation | null => kindOf(definition).evaluate(method, definition, record, context);

/** True once anything was read in a stage. */
export const isBegun = (stage: ComputedEvaluation): boolean => kindOf(stage).begun(stage);

/** The key number of a stage, or how far it is. */
export function factOf(stage: ComputedEvaluation): string {
  if (stage.done) return stage.shown?.text ?? "";
  const impossible = stage.implausible.some(({ outside }) => outside === "impossible");
  return impossible ? "cannot be: look" : kindOf(stage).fact(stage);
}

/** What to do next at a stage, in one sentence. */
export const nextAt = (stage: ComputedEvaluation): string => kindOf(stage).next(stage);

/** Symbols that a fit yields for the relations of a stage. */
export const fittedSymbols = (definition: ComputedStage): readonly string[] =>
  kindOf(definition).fitted(definition);
