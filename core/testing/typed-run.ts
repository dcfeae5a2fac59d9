import "~/core/stages/engines";
import { type ComputedStage, type Method, stageFields, trialFields } from "~/core/method";
import type { HouseRules } from "~/core/rules";
import type { Observation, ObservationKind, TrialRecord } from "~/core/record";
import type { RunRecord } from "~/core/run";
import { unconfirmedVolumes } from "~/core/stages";
import { defaultHouseRules } from "~/catalog/rules/defaults";

const at = "2026-11-25T09:00:00.000Z";

/** What was typed, by `symbol:kind`; several readings of one cuvette, or points as `burette=shown`, stand in one text, parted by blanks. */
export type Typed = Readonly<Record<`${string}:${ObservationKind}`, string>>;

export interface TypedStage {
  readonly once?: Typed;
  readonly trials?: readonly Typed[];
  /** Courses of absorbance in time, one for each of the first trials. */
  readonly courses?: readonly { readonly x: readonly number[]; readonly absorbance: readonly number[] }[];
  readonly choices?: Readonly<Record<string, string>>;
  /** True where nobody confirms the volumes that the method presumes. */
  readonly unconfirmed?: boolean;
}

/** Volumes as a method has them, as somebody who used just those confirms them. */
const confirmed = (stage: ComputedStage): Typed =>
  Object.fromEntries(
    unconfirmedVolumes(stage, []).map(({ symbol, text }) => [`${symbol}:volume.taken`, text]),
  );

const observed = (holder: string, typed: Typed, stage: ComputedStage): Observation[] => {
  const fields = [...stageFields(stage, defaultHouseRules), ...trialFields(stage, defaultHouseRules)];
  const each = Object.entries(typed).flatMap(([key, texts]) =>
    texts.split(" ").map((text, i) => [key, text, i === 0 ? "" : `/${i}`] as const),
  );
  return each.map(([key, written, which]) => {
    const [symbol = "", kind = ""] = key.split(":");
    const [burette = "", shown] = written.split("=");
    const text = shown ?? written;
    return {
      id: `${holder}/${key}${which}`,
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
      ...(shown === undefined ? {} : { point: { burette } }),
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
    stages: Object.entries(stages).map(
      ([key, { once = {}, trials = [], courses, choices, unconfirmed }]) => ({
        id: key,
        key,
        observations: observed(
          key,
          unconfirmed ? once : { ...confirmed(definitionOf(key)), ...once },
          definitionOf(key),
        ),
        ...(choices ? { choices: { ...choices } } : {}),
        ...(courses
          ? {
              traces: courses.map(({ x, absorbance }, i) => ({
                id: `${key}-course-${i + 1}`,
                trialId: `${key}-${i + 1}`,
                name: `course ${i + 1}`,
                xUnit: "s" as const,
                x: [...x],
                absorbance: [...absorbance],
                source: "imported" as const,
                person: "bench 2",
                at,
                removed: null,
              })),
            }
          : {}),
        trials: trials.map((typed, i): TrialRecord => ({
          id: `${key}-${i + 1}`,
          number: i + 1,
          label: null,
          kind: "fine",
          struck: null,
          observations: observed(`${key}-${i + 1}`, typed, definitionOf(key)),
        })),
      }),
    ),
  };
}
