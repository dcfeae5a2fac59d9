import { checkField, type ComputedStage, fieldKey, stageFields, trialFields } from "~/core/method";
import type { Field } from "~/core/inputs";
import {
  nextTrialNumber,
  type Observation,
  presentObservation,
  spreadKinds,
  type StageRecord,
  type TimerRecord,
  type TrialRecord,
} from "~/core/record";
import type { RunRecord } from "~/core/run";
import type { Observe, RunRequest } from "./requests";

/** A change that is not on the server yet, and when it was made by this device's clock, ms since 1970. */
export interface WaitingChange {
  readonly request: RunRequest;
  readonly at: number;
}

/** Changes that can wait until the server is reached: readings and timers. Each carries an id, so that it is made once. */
export const canWait = ({ intent }: RunRequest): boolean =>
  intent === "observe" ||
  intent === "enter" ||
  intent === "start-timer" ||
  intent === "begin-timer" ||
  intent === "end-timer";

/** Ids of the trials, timers and readings that a change makes, or speaks of. */
function speaksOf(request: RunRequest): string[] {
  switch (request.intent) {
    case "observe":
      return [
        request.id,
        ...(request.trial ? [request.trial.id] : []),
        ...(request.supersedes === null ? [] : [request.supersedes]),
      ];
    case "enter":
      return request.rows.flatMap(({ trial, readings }) => [
        ...(trial ? [trial.id] : []),
        ...readings.map(({ id }) => id),
      ]);
    case "start-timer":
      return [request.id, ...(request.trialId === null ? [] : [request.trialId])];
    case "begin-timer":
    case "end-timer":
      return [request.timerId];
    default:
      return [];
  }
}

/** True where a change makes no sense without an earlier one: a reading of the same trial, the end of the same timer. */
export const dependsOn = (later: RunRequest, earlier: RunRequest): boolean => {
  const named = new Set(speaksOf(earlier));
  return speaksOf(later).some((id) => named.has(id));
};

function fieldOf(stage: ComputedStage, record: RunRecord, request: Observe): Field | undefined {
  const fields = (request.trial ? trialFields : stageFields)(stage, record.houseRules);
  return fields.find((f) => fieldKey(f) === fieldKey(request));
}

function observed(stage: StageRecord, record: RunRecord, request: Observe, at: string): StageRecord {
  const definition = record.method.stages.find((s) => s.key === stage.key);
  if (!definition || definition.kind === "conclude") return stage;
  const field = fieldOf(definition, record, request);
  if (!field) return stage;
  const { id, symbol, kind, text, supersedes, reason, trial: sent } = request;
  const existing = sent ? stage.trials.find((t) => t.id === sent.id) : undefined;
  const holder: { observations: Observation[] } = sent ? (existing ?? { observations: [] }) : stage;
  if (holder.observations.some((o) => o.id === id)) return stage;
  const checked = checkField(field, text, { stage: definition, houseRules: record.houseRules, holder });
  const observation: Observation = {
    id,
    symbol,
    kind,
    text,
    value: checked.ok ? checked.text : null,
    unit: field.unit,
    source: request.source ?? "typed",
    person: request.person ?? record.bench,
    at,
    supersedes,
    reason,
  };
  // The ± that stood beside another value was that value's.
  const cleared = (spreadKinds[kind] ?? []).flatMap((spread): Observation[] => {
    const present = presentObservation(holder.observations, symbol, spread);
    const gone = { kind: spread, text: "", value: null, supersedes: present?.id ?? null };
    return present
      ? [{ ...observation, ...gone, id: `${id}:${spread}`, reason: "another value was typed" }]
      : [];
  });
  if (!sent) return { ...stage, observations: [...stage.observations, observation, ...cleared] };
  const begun: TrialRecord = existing ?? {
    id: sent.id,
    number: sent.kind === "fine" ? nextTrialNumber(stage.trials) : null,
    label: null,
    kind: sent.kind,
    struck: null,
    observations: [],
  };
  const written = { ...begun, observations: [...begun.observations, observation, ...cleared] };
  const trials = existing
    ? stage.trials.map((t) => (t === existing ? written : t))
    : [...stage.trials, written];
  return { ...stage, trials };
}

function timed(stage: StageRecord, record: RunRecord, request: RunRequest, at: string): StageRecord {
  const timers = stage.timers ?? [];
  if (request.intent === "start-timer") {
    if (request.stageKey !== stage.key || timers.some((t) => t.id === request.id)) return stage;
    const { id, trialId, what, flask, counts, seconds, strict, inSeconds } = request;
    const startedAt = inSeconds === null ? at : null;
    const plannedAt = inSeconds === null ? null : new Date(Date.parse(at) + 1000 * inSeconds).toISOString();
    const set: TimerRecord = {
      ...{ id, trialId, what, flask, counts, seconds, strict, startedAt, plannedAt },
      endedAt: null,
      outcome: null,
      person: record.bench,
    };
    return { ...stage, timers: [...timers, set] };
  }
  if (request.intent !== "begin-timer" && request.intent !== "end-timer") return stage;
  const change: Partial<TimerRecord> =
    request.intent === "begin-timer" ? { startedAt: at } : { endedAt: at, outcome: request.outcome };
  return timers.some((t) => t.id === request.timerId)
    ? { ...stage, timers: timers.map((t) => (t.id === request.timerId ? { ...t, ...change } : t)) }
    : stage;
}

/** The readings of a request, one by one; those of a table belong to the flasks of its rows. */
function readingsOf(request: RunRequest): Observe[] {
  if (request.intent === "observe") return [request];
  if (request.intent !== "enter") return [];
  const { stageKey, source } = request;
  return request.rows.flatMap(({ trial, readings }) =>
    readings.map((one) => ({
      intent: "observe" as const,
      ...one,
      stageKey,
      trial: trial && { id: trial.id, kind: trial.kind },
      supersedes: null,
      reason: null,
      ...(source === "imported" ? {} : { source }),
    })),
  );
}

/**
 * The record as it will be once what waits has reached the server: readings and timers stand in it as though they had been
 * saved. The record itself is not touched. `clockOffset`: how far the server's clock is ahead of this device's, ms.
 */
export function withWaiting(
  record: RunRecord,
  waiting: readonly WaitingChange[],
  clockOffset = 0,
): RunRecord {
  return waiting.reduce((now, { request, at }): RunRecord => {
    const when = new Date(at + clockOffset).toISOString();
    const stages = now.stages.map((stage) =>
      readingsOf(request).reduce(
        (so, one) => (one.stageKey === stage.key ? observed(so, now, one, when) : so),
        timed(stage, now, request, when),
      ),
    );
    return { ...now, stages };
  }, record);
}
