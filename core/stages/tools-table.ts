import type { ComputedStage } from "../method";
import type { StageRecord } from "../record";
import type { Result } from "../result";
import type { Bench } from "./bench/bench";
import { calibrationTools } from "./calibration/tools";
import type { CompiledStage } from "./compiled";
import { curveTools } from "./curve/tools";
import { isothermTools } from "./isotherm/tools";
import { preparationTools } from "./preparation/tools";
import { rateTools } from "./rate/tools";
import type { ComputedEvaluation } from "./shared/evaluation";
import type { StagePlanning } from "./shared/planning";
import { titrationTools } from "./titration/tools";
import type { StageTools, StageWorking } from "./tools";
import { unknownTools } from "./unknown/tools";

type Kind = ComputedStage["kind"];

/** The tools of all kinds, apart from `table.ts`: a screen that only evaluates carries none of them. */
const tools = {
  titration: titrationTools,
  preparation: preparationTools,
  calibration: calibrationTools,
  unknown: unknownTools,
  rate: rateTools,
  curve: curveTools,
  isotherm: isothermTools,
} satisfies Readonly<Record<Kind, object>>;

const toolsOf = ({ kind }: { readonly kind: Kind }) =>
  tools[kind] as unknown as StageTools<CompiledStage, ComputedEvaluation>;

/** How a stage is planned. */
export const planningOf = (definition: ComputedStage): StagePlanning<CompiledStage> =>
  toolsOf(definition).planning;

/** Performs a stage on a simulated bench; see `StageTools`. */
export const performStage = (
  stage: CompiledStage,
  record: StageRecord,
  shared: ReadonlyMap<string, number>,
  bench: Bench,
): Result<number> => toolsOf(stage.definition).simulate(stage, record, shared, bench);

/** How the working of a stage is written. */
export const workingOfKind = (stage: ComputedEvaluation): StageWorking<CompiledStage, ComputedEvaluation> =>
  toolsOf(stage).working;
