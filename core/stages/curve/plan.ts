import type { CurveStage } from "../../method";
import { unitOf } from "../../quantity";
import { msg } from "../../text";
import type { CompiledStage } from "../compiled";
import { followed, type PlannedByKind, type Planning, type StagePlanning } from "../shared/planning";
import { rinsingMl } from "../titration/plan";
import { endsFor } from "./ends";

/** So far a curve goes, as a part of its last end. Common practice, no source. */
const beyond = 1.3;

function plan(stage: CompiledStage<CurveStage>, planning: Planning): PlannedByKind {
  const { definition } = stage;
  const { curve, result, inputs, presumed } = definition;
  const { chosen, choices, numbers, missing, compiled } = planning;
  const value = chosen.result ?? presumed;
  const titrant = inputs.find((i) => i.is === "curve")?.titrant ?? null;
  if (missing.length > 0) return { value, titrant, message: msg`Still needed: ${missing.join(", ")}` };
  const ends = endsFor(stage, {
    known: numbers,
    target: value * unitOf(result.unit).factor,
    stoichiometry: compiled.stoichiometry,
  });
  if (!ends) return { value, titrant, message: msg`No volume gives that result` };
  const lastMl = Math.max(...ends);
  const all = new Map(numbers);
  curve.ends.forEach(({ symbol }, i) => all.set(symbol, (ends[i] ?? NaN) * unitOf("mL").factor));
  planning.keep(followed(stage, all, planning));
  const { benches, trials, marginPercent, buretteMl } = choices;
  const wholeMl = beyond * lastMl;
  const suffices = wholeMl <= buretteMl;
  return {
    value,
    titrant,
    titerMl: lastMl,
    suffices,
    titrantMl: benches * (trials * wholeMl * (1 + marginPercent / 100) + rinsingMl),
    message: suffices
      ? msg`The last equivalence point near ${lastMl.toFixed(1)} mL, the curve on to ${wholeMl.toFixed(0)} mL: twenty to forty points`
      : msg`The curve needs ${wholeMl.toFixed(0)} mL, more than the burette of ${buretteMl} mL holds: take less`,
  };
}

export const curvePlanning: StagePlanning<CompiledStage<CurveStage>> = {
  plan,
  flasks: (_stage, trials) => trials,
  reagentFlasks: (_stage, trials) => trials,
};
