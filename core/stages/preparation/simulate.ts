import { success, type Result } from "../../result";
import { follow, type Bench } from "../bench/bench";
import type { StageRecord } from "../../record";
import type { PreparationStage } from "../../method";
import type { CompiledStage } from "../compiled";

/** What is made once follows from what was read for it. */
export function performPreparation(
  stage: CompiledStage<PreparationStage>,
  _record: StageRecord,
  shared: ReadonlyMap<string, number>,
  bench: Bench,
): Result<number> {
  const made = follow(stage, new Map(shared), bench);
  bench.earlier.set(stage.definition.key, made);
  return success(made.get(stage.definition.result.symbol) ?? NaN);
}
