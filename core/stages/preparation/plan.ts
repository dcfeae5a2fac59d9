import { unitOf, withUnit } from "../../quantity";
import { followed, type StagePlanning, type Planning, type PlannedByKind } from "../shared/planning";
import type { PreparationStage } from "../../method";
import type { CompiledStage } from "../compiled";
import { msg } from "../../text";

/** What is made once: its result follows from what is taken. */
function plan(stage: CompiledStage<PreparationStage>, planning: Planning): PlannedByKind {
  const { result, spectra } = stage.definition;
  const { name, unit, symbol } = result;
  const all = followed(stage, planning.numbers, planning);
  const found = all.get(symbol) ?? NaN;
  if (Number.isFinite(found)) planning.keep(all);
  const value = Number.isFinite(found) ? found / unitOf(unit).factor : null;
  if (spectra) return { value, message: msg`Usually ${spectra.usualNm} nm` };
  return {
    value,
    message:
      value === null
        ? msg`Choose ${planning.missing.join(", ").toLowerCase() || msg`the amounts`} to see what it gives`
        : msg`${name}: ${withUnit(value.toPrecision(4), unit)}`,
  };
}

export const preparationPlanning: StagePlanning<CompiledStage<PreparationStage>> = {
  plan,
  flasks: (_stage, trials) => trials,
  reagentFlasks: () => 1,
};
