import { type TrialRecord, presentObservation } from "../../record";
import { inputOf, type TitrationStage } from "../../method";
import { type CompiledTitration } from "./compile";
import { type CompiledMethod } from "../compiled";
import { type KnownQuantities, evaluateSample } from "../shared/trial";
import { type HouseRules, replicatesNeeded } from "../../rules";
import type { TrialEvaluation } from "../shared/evaluation";
import { inUnit, exact, type Quantity } from "../../quantity";
import { volumeFactor } from "../../measure";
import { volumeConditions, amountUnitOf } from "../../inputs";
import { evaluate } from "../../relation";

/** One trial of a titration. */
export function evaluateTrial(
  record: TrialRecord,
  stage: CompiledTitration,
  shared: KnownQuantities,
  compiled: CompiledMethod,
  rules: HouseRules,
): TrialEvaluation {
  const trial = evaluateSample(record, stage, shared, compiled, rules);
  const titer = trial.symbols.get(stage.titer);
  const titerMl = titer ? titerAsRead(inUnit(titer, "mL"), stage, rules) : null;
  // Titers are compared as people read them.
  const asRead =
    titerMl === null ? trial.symbols : new Map(trial.symbols).set(stage.titer, exact(titerMl, "mL"));
  const overshot = presentObservation(record.observations, stage.titer, "end.overshot") !== null;
  return { ...trial, titerMl, overshot, compared: comparedAlone(stage, asRead, compiled) };
}

/**
 * A titer as the burette shows it, mL, from the one that relations use, which is that at 20 °C and without the bias of the
 * indicator.
 */
export function titerAsRead(
  ml: number,
  { definition, titer }: Pick<CompiledTitration, "definition" | "titer">,
  rules: HouseRules,
): number {
  const input = definition.inputs.find(({ symbol }) => symbol === titer);
  const bias = input?.is === "titer" ? Number(input.bias?.ml ?? 0) : 0;
  return ml / volumeFactor(volumeConditions(rules)) + bias;
}

/** Titers and titers per amount need no other trial to be compared; results do, and wait. */
function comparedAlone(
  stage: CompiledTitration,
  symbols: ReadonlyMap<string, Quantity>,
  { stoichiometry }: CompiledMethod,
): number | null {
  if (stage.compares === "result") return null;
  const unit = perUnit(stage);
  const comparedUnit = unit === "" || unit === "1" ? "mL" : `mL/${unit}`;
  const reads = [
    stage.titer,
    ...(stage.definition.agree.per === undefined ? [] : [stage.definition.agree.per]),
  ];
  if (!reads.every((symbol) => symbols.has(symbol))) return null;
  const value = inUnit(evaluate(stage.agreeOn, { symbols, stoichiometry }), comparedUnit);
  return Number.isFinite(value) ? value : null;
}

/** The unit of the amount that titers are taken per; empty where they are compared as they stand. */
export function perUnit({ definition }: CompiledTitration): string {
  const { per } = definition.agree;
  const input = per === undefined ? undefined : inputOf(definition, per);
  return input ? amountUnitOf(input) : "";
}

/** True where the first trial is made to find the end: nothing is presumed, and more than one trial is needed. */
export const startsRough = ({ presumed }: TitrationStage, { agreement }: HouseRules): boolean =>
  presumed === undefined && replicatesNeeded(agreement) > 1;
