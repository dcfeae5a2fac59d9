import type { CurveStage, IsothermStage, RateStage, UnknownStage } from "../method";
import type { StageRecord } from "../record";
import { Bug } from "../result";
import type { CompiledCalibration } from "./calibration/compile";
import type { CompiledStage } from "./compiled";
import type {
  CalibrationEvaluation,
  CurveStageEvaluation,
  IsothermEvaluation,
  RateEvaluation,
  UnknownEvaluation,
} from "./shared/evaluation";
import type { StageContext } from "./shared/stage";

/*
 * Evaluations that carry an engine of their own, lines, rate laws, equilibria and fits, which other runs do without: they are provided by `engines.ts`, and a screen
 * imports that where a run has such a stage. Servers, workers and tests import it once and for all.
 */

/** By kind of stage. */
interface Engines {
  readonly calibration: (
    stage: CompiledCalibration,
    record: StageRecord,
    context: StageContext,
  ) => CalibrationEvaluation;
  readonly unknown: (
    stage: CompiledStage<UnknownStage>,
    record: StageRecord,
    context: StageContext,
  ) => UnknownEvaluation;
  readonly rate: (
    stage: CompiledStage<RateStage>,
    record: StageRecord,
    context: StageContext,
  ) => RateEvaluation;
  readonly curve: (
    stage: CompiledStage<CurveStage>,
    record: StageRecord,
    context: StageContext,
  ) => CurveStageEvaluation;
  readonly isotherm: (
    stage: CompiledStage<IsothermStage>,
    record: StageRecord,
    context: StageContext,
  ) => IsothermEvaluation;
}

const provided: { -readonly [K in keyof Engines]?: Engines[K] } = {};

/** Makes the evaluation of a kind of stage known. */
export const provideEngine = <K extends keyof Engines>(kind: K, engine: Engines[K]): void => {
  provided[kind] = engine;
};

/** The evaluation of a kind of stage. Throws where nobody imported `engines.ts`. */
export function engineOf<K extends keyof Engines>(kind: K): Engines[K] {
  const engine = provided[kind];
  if (!engine) throw new Bug(`The engine of ${kind} stages was not imported: core/stages/engines`);
  return engine;
}

/** Kinds of stages that need an engine. */
const needing: ReadonlySet<string> = new Set<keyof Engines>([
  "calibration",
  "unknown",
  "rate",
  "curve",
  "isotherm",
]);

/** Whether a method has a stage whose evaluation needs `engines.ts`. */
export const needsEngines = ({
  stages,
}: {
  readonly stages: readonly { readonly kind: string }[];
}): boolean => stages.some(({ kind }) => needing.has(kind));
