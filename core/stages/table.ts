import type { StageAllows } from "../change";
import type { ComputedStage, Method } from "../method";
import type { Result } from "../result";
import type { MethodProblem } from "./problem";
import type { CompiledStage } from "./compiled";
import type { Checked, Fitted } from "./shared/compile";
import type { StageRecord } from "../record";
import { calibration } from "./calibration/kind";
import { curve } from "./curve/kind";
import { isotherm } from "./isotherm/kind";
import type { StageKind } from "./kind";
import { preparation } from "./preparation/kind";
import { rate } from "./rate/kind";
import type { ComputedEvaluation } from "./shared/evaluation";
import type { StageContext } from "./shared/stage";
import { titration } from "./titration/kind";
import { unknown } from "./unknown/kind";
import { msg, type Phrase } from "../text";

type Kind = ComputedStage["kind"];

/** All kinds of stages; one that is missing does not compile. */
const kinds = { titration, preparation, calibration, unknown, rate, curve, isotherm } satisfies Readonly<
  Record<Kind, object>
>;

/** The kind of a stage; the union of stages is matched with the table of kinds here, and nowhere else. */
const kindOf = ({ kind }: { readonly kind: Kind }) =>
  kinds[kind] as unknown as StageKind<ComputedStage, CompiledStage, ComputedEvaluation>;

/** What can be changed in a stage, beside readings of its fields. */
export const allowsOf = (definition: ComputedStage): StageAllows => kindOf(definition).allows(definition);

/** What follows from what was read in a stage. */
export const evaluateStage = (
  stage: CompiledStage,
  record: StageRecord,
  context: StageContext,
): ComputedEvaluation => kindOf(stage.definition).evaluate(stage, record, context);

/** True once anything was read in a stage. */
export const isBegun = (stage: ComputedEvaluation): boolean => kindOf(stage).begun(stage);

/** The key number of a stage, or how far it is. */
export function factOf(stage: ComputedEvaluation): Phrase {
  if (stage.done) return stage.shown?.text ?? "";
  const impossible = stage.implausible.some(({ outside }) => outside === "impossible");
  return impossible ? msg`impossible: check` : kindOf(stage).fact(stage);
}

/** What speaks for a stage's result, or against it, sentence by sentence. */
export const reasonsOf = (stage: ComputedEvaluation): readonly Phrase[] => kindOf(stage).reasons(stage);

/** Why the run is not at its end at this stage. */
export const unfinishedWords = (stage: ComputedEvaluation): Phrase => kindOf(stage).unfinished(stage);

/** What to do next at a stage, in one sentence. */
export const nextAt = (stage: ComputedEvaluation): Phrase => kindOf(stage).next(stage);

/** Symbols that a fit yields for the relations of a stage. */
export const fittedSymbols = (definition: ComputedStage): readonly Fitted[] =>
  kindOf(definition).fitted(definition);

/** Unit of a symbol that a fit yields; undefined for any other. */
export const fittedUnit = (definition: ComputedStage, symbol: string): string | undefined =>
  fittedSymbols(definition).find((fitted) => fitted.symbol === symbol)?.unit;

/** What is wrong with a stage, before its relations are looked at. */
export const problemOfStage = (definition: ComputedStage, method: Method): MethodProblem | null =>
  kindOf(definition).problem(definition, method);

/** What the evaluation of a stage works on, from its checked relations. */
export const compileKind = (
  definition: ComputedStage,
  checked: Checked,
  method: Method,
): Result<CompiledStage, MethodProblem> => kindOf(definition).compile(definition, checked, method);
