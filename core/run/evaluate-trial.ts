import {
  buretteVolume,
  type Check,
  massByDifference,
  pipetteVolume,
  type VolumeConditions,
} from "../measure";
import { purity } from "../measure/mass";
import { inUnit, type Quantity } from "../quantity";
import { evaluate, evaluateRelations, symbolsIn } from "../relation";
import type { CompiledMethod, CompiledStage } from "./compile";
import type { FieldState, TrialEvaluation } from "./evaluation";
import { massCautions, stageFields, trialFields } from "./fields";
import { type Input, inputOf } from "./method";
import {
  fieldHistory,
  type Observation,
  presentObservation,
  type StageRecord,
  trialName,
  type TrialRecord,
} from "./record";
import { type HouseRules, massDecimals } from "./rules";
import { showQuantity } from "./show";

export function volumeConditions({ glassware, temperature }: HouseRules): VolumeConditions {
  return {
    toleranceClass: glassware.toleranceClass,
    toleranceShape: glassware.toleranceShape,
    temperatureHalfRangeC: Number(temperature.halfRangeC),
    temperatureShape: temperature.shape,
  };
}

function number(
  observations: readonly Observation[],
  symbol: string,
  kind: Observation["kind"],
): number | null {
  const present = presentObservation(observations, symbol, kind);
  return present ? Number(present.value) : null;
}

/** What a trial's or a stage's readings say of one input, with its leaves; null where something is still to be read. */
function inputQuantity(
  symbol: string,
  input: Input,
  observations: readonly Observation[],
  place: { stage: string; trial: string },
  rules: HouseRules,
): Quantity | null {
  const read = (kind: Observation["kind"]) => number(observations, symbol, kind);
  switch (input.is) {
    case "mass": {
      const [before, after] = [read("mass.before"), read("mass.after")];
      if (before === null || after === null || after >= before) return null;
      const { readabilityG, linearityG } = rules.balance;
      const balance = { readabilityG: Number(readabilityG), linearityG: Number(linearityG) };
      return massByDifference(before, after, place, balance);
    }
    case "titer": {
      const [initialMl, finalMl] = [read("burette.initial"), read("burette.final")];
      if (initialMl === null || finalMl === null || finalMl <= initialMl) return null;
      const { capacityMl, readingHalfWidthMl } = rules.burette;
      return buretteVolume(
        { initialMl, finalMl, capacityMl, readingHalfWidthMl: Number(readingHalfWidthMl), ...place },
        volumeConditions(rules),
      );
    }
    case "pipette": {
      const volumeMl = read("volume.taken");
      return volumeMl === null ? null : pipetteVolume(volumeMl, place, volumeConditions(rules));
    }
    case "purity": {
      const percent = read("purity") ?? Number(input.presumed.percent);
      const halfWidth = read("purity.plus-minus") ?? Number(input.presumed.plusMinus);
      return purity(percent / 100, halfWidth / 100, input.of, place.stage);
    }
    case "result":
      return null;
  }
}

/** Readings of the whole stage and results of earlier ones, by symbol. */
export function stageInputs(
  stage: CompiledStage,
  record: StageRecord,
  earlier: ReadonlyMap<string, Quantity>,
  rules: HouseRules,
): Map<string, Quantity> {
  const quantities = new Map<string, Quantity>();
  for (const input of stage.definition.inputs) {
    const { symbol } = input;
    if (input.per !== "run") continue;
    const place = { stage: stage.definition.key, trial: record.id };
    const quantity =
      input.is === "result"
        ? (earlier.get(input.stage) ?? null)
        : inputQuantity(symbol, input, record.observations, place, rules);
    if (quantity) quantities.set(symbol, quantity);
  }
  return quantities;
}

function states(fields: readonly FieldState["field"][], observations: readonly Observation[]): FieldState[] {
  return fields.map((field) => ({
    field,
    present: presentObservation(observations, field.symbol, field.kind),
    history: fieldHistory(observations, field.symbol, field.kind),
  }));
}

export const stageFieldStates = (stage: CompiledStage, record: StageRecord, rules: HouseRules) =>
  states(stageFields(stage.definition, rules), record.observations);

/** One trial: what was read, what follows from it, and whether it may be judged. */
export function evaluateTrial(
  record: TrialRecord,
  stage: CompiledStage,
  shared: ReadonlyMap<string, Quantity>,
  { ratio }: CompiledMethod,
  rules: HouseRules,
): TrialEvaluation {
  const { definition, lines, agreeOn, titer } = stage;
  const fields = states(trialFields(definition, rules), record.observations);
  const symbols = new Map(shared);
  const cautions: Check[] = [];
  let whole = true;
  for (const input of definition.inputs) {
    const { symbol } = input;
    if (input.per !== "trial") continue;
    const place = { stage: definition.key, trial: record.id };
    const quantity = inputQuantity(symbol, input, record.observations, place, rules);
    if (!quantity) {
      whole = false;
      continue;
    }
    symbols.set(symbol, quantity);
    if (input.is === "mass") cautions.push(...massCautions(input, quantity.value, massDecimals(rules)));
  }
  const missing = fields.find(({ present }) => !present)?.field ?? null;
  const titerQuantity = symbols.get(titer);
  const base = {
    id: record.id,
    record,
    name: trialName(record),
    fields,
    missing,
    cautions,
    titerMl: titerQuantity ? inUnit(titerQuantity, "mL") : null,
  };
  const everything = definition.inputs.every(({ symbol }) => symbols.has(symbol));
  const computed = everything ? evaluateRelations(lines, symbols, ratio) : symbols;
  const result = computed.get(definition.result.symbol) ?? null;
  const comparable = whole && symbolsIn(agreeOn).every((symbol) => computed.has(symbol));
  return {
    ...base,
    symbols: computed,
    eligible: whole && missing === null && record.kind === "fine" && !record.struck,
    result: result && Number.isFinite(result.value) ? result : null,
    shownResult: result ? showQuantity(result, definition.result.unit, rules.plusMinus) : null,
    compared: comparable
      ? inUnit(evaluate(agreeOn, { symbols: computed, ratio }), comparedUnit(stage))
      : null,
  };
}

const perUnits: Record<Input["is"], string> = {
  mass: "g",
  pipette: "mL",
  titer: "mL",
  purity: "1",
  result: "1",
};

/** The unit of the amount that titers are taken per; empty where they are compared as they stand. */
export function perUnit({ definition }: CompiledStage): string {
  const per = definition.agree.per;
  const input = per === undefined ? undefined : inputOf(definition, per);
  return input ? perUnits[input.is] : "";
}

function comparedUnit(stage: CompiledStage): string {
  const per = perUnit(stage);
  return per === "" || per === "1" ? "mL" : `mL/${per}`;
}
