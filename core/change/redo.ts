import { Type } from "@sinclair/typebox";
import { endOfCorrections } from "../record";
import { success } from "../result";
import type { RunRecord } from "../run";
import { type ChangeContext, type ChangeKind, refused } from "./change";
import type { Inverse } from "./inverse";
import { Closed, Id, type Made } from "./parts";
import { findTrial, holderOf } from "./place";
import { applyInverse, takeBack } from "./take-back";
import { msg } from "../text";

export const redoSchema = () => Type.Object({ intent: Type.Literal("redo"), eventId: Id }, Closed);

/** Makes the change again that was undone last. What takes it back is what took it back before. */
export const redo: ChangeKind<Made<typeof redoSchema>> = {
  whenClosed: true,
  timers: true,
  apply(record, { eventId }, context) {
    const { next } = context;
    if (!next || next.id !== eventId)
      return refused(msg`Something else has been changed since: there is nothing to redo`);
    const again = applyInverse(record, next.redo, context);
    if (!again.ok) return again;
    const { description, inverse } = next;
    return success({ record: again.value, inverse, entry: { description } });
  },
};

const reasonOfRedo = "undo taken back";

type Single = Exclude<Inverse, { do: "several" }>;
type Of<D extends Inverse["do"]> = Extract<Inverse, { do: D }>;

const timerIn = (record: RunRecord, id: string) =>
  record.stages.flatMap((s) => s.timers ?? []).find((t) => t.id === id);
const traceIn = (record: RunRecord, id: string) =>
  record.stages.flatMap((s) => s.traces ?? []).find((t) => t.id === id);

/** What a step of an undo undoes, as the step that makes it again; null where what it speaks of is not there. */
const counters: { readonly [D in Single["do"]]: (record: RunRecord, step: Of<D>) => Inverse | null } = {
  supersede(record, { observationId }) {
    const last = endOfCorrections(holderOf(record, observationId)?.observations ?? [], observationId);
    if (!last) return null;
    const by = last.value === null ? null : last.text;
    const assignment = last.assignment ?? null;
    const point = last.point ? { point: last.point } : {};
    return { do: "supersede", observationId, by, assignment, ...point, reason: last.reason ?? reasonOfRedo };
  },
  trial(record, step) {
    const trial = findTrial(record, step.trialId)?.trial;
    if (!trial) return null;
    const { kind, label, struck, number } = trial;
    const changed = Object.entries({ kind, label, struck, number }).filter(([name]) => name in step);
    return { do: "trial", trialId: step.trialId, ...Object.fromEntries(changed) };
  },
  choose({ stages }, { stageId, name }) {
    const stage = stages.find((s) => s.id === stageId);
    return { do: "choose", stageId, name, value: stage?.choices?.[name] ?? null };
  },
  inputs: ({ choices }) => ({ do: "inputs", choices: choices ?? [] }),
  rules: ({ houseRules }) => ({ do: "rules", rules: houseRules }),
  timer(record, { timerId }) {
    const timer = timerIn(record, timerId);
    if (!timer) return null;
    const { startedAt, endedAt, outcome } = timer;
    return { do: "timer", timerId, startedAt, endedAt, outcome };
  },
  trace(record, { traceId }) {
    const trace = traceIn(record, traceId);
    return trace ? { do: "trace", traceId, removed: trace.removed } : null;
  },
  countersign: () => null,
  run: ({ title, sample, bench }) => ({ do: "run", title, sample, bench }),
  status: ({ status, finishedAt }) => ({ do: "status", status, finishedAt }),
};

const counterOf = (record: RunRecord, step: Single): Inverse | null =>
  (counters[step.do] as (record: RunRecord, step: Single) => Inverse | null)(record, step);

/**
 * What would make a change again that is about to be taken back: its steps the other way round, and the numbers of trials that give
 * theirs up with it. `context` makes no ids that are kept.
 */
export function redoOf(record: RunRecord, inverse: Inverse, context: ChangeContext): Inverse {
  const steps = inverse.do === "several" ? inverse.of : [inverse];
  let now = record;
  const counters = steps.flatMap((step) => {
    const counter = step.do === "several" ? redoOf(now, step, context) : counterOf(now, step);
    const taken = applyInverse(now, step, context);
    if (taken.ok) now = taken.value;
    return counter ? [counter] : [];
  });
  const after = takeBack(record, inverse, context);
  const numbered = record.stages.flatMap(({ trials }) =>
    trials.flatMap(({ id, number }): Inverse[] => {
      const left = after.ok ? findTrial(after.value, id)?.trial.number : number;
      return left === number ? [] : [{ do: "trial", trialId: id, number }];
    }),
  );
  return { do: "several", of: [...counters.toReversed(), ...numbered] };
}
