import {
  type ComputedStage,
  type HouseRules,
  type Method,
  type Observation,
  type ObservationKind,
  type RunRecord,
  stageFields,
  trialFields,
  type TrialRecord,
} from "~/core/run";
import { defaultHouseRules } from "../rules/defaults";

const at = "2026-11-25T09:00:00.000Z";

/** What was typed, by `symbol:kind`. */
export type Typed = Readonly<Record<`${string}:${ObservationKind}`, string>>;

export interface TypedStage {
  readonly once?: Typed;
  readonly trials?: readonly Typed[];
}

const observed = (holder: string, typed: Typed, stage: ComputedStage): Observation[] => {
  const fields = [...stageFields(stage, defaultHouseRules), ...trialFields(stage, defaultHouseRules)];
  return Object.entries(typed).map(([key, text]) => {
    const [symbol = "", kind = ""] = key.split(":");
    return {
      id: `${holder}/${key}`,
      symbol,
      kind: kind as ObservationKind,
      text,
      value: text,
      unit: fields.find((f) => f.symbol === symbol && f.kind === kind)?.unit ?? "",
      source: "typed",
      person: "bench 2",
      at,
      supersedes: null,
      reason: null,
    };
  });
};

/** A titer from zero, for methods that ask for nothing else. */
export const titer = (ml: string): Typed => ({ "V:burette.initial": "0.00", "V:burette.final": ml });

/** A run of any method from what was typed into it. Every trial counts. */
export function typedRun(
  method: Method,
  stages: Readonly<Record<string, TypedStage>>,
  rules: Partial<HouseRules> = {},
): RunRecord {
  const definitionOf = (key: string) => method.stages.find((stage) => stage.key === key) as ComputedStage;
  return {
    format: "steady-bead/run",
    formatVersion: 1,
    id: "typed",
    title: method.title,
    sample: "S-1",
    bench: "bench 2",
    status: "open",
    startedAt: at,
    finishedAt: null,
    method,
    houseRules: { ...defaultHouseRules, ...rules },
    stages: Object.entries(stages).map(([key, { once = {}, trials = [] }]) => ({
      id: key,
      key,
      observations: observed(key, once, definitionOf(key)),
      trials: trials.map((typed, i): TrialRecord => ({
        id: `${key}-${i + 1}`,
        number: i + 1,
        label: null,
        kind: "fine",
        struck: null,
        observations: observed(`${key}-${i + 1}`, typed, definitionOf(key)),
      })),
    })),
  };
}
