import { Type } from "@sinclair/typebox";
import { timerWords } from "../method";
import { type TimerRecord, TimerRecordSchema } from "../record";
import { success } from "../result";
import type { RunRecord } from "../run";
import { capitalized, msg } from "../text";
import { type Applied, type ChangeKind, conflict, happenedAt, missing, refused } from "./change";
import type { Inverse } from "./inverse";
import { Closed, Held, Id, Key, type Made } from "./parts";
import { inStage, openStage } from "./place";

export const startTimerSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("start-timer"),
      id: Id,
      stageKey: Key,
      trialId: Type.Union([Id, Type.Null()]),
      what: Type.String({ minLength: 1, maxLength: 160 }),
      flask: Type.String({ maxLength: 60 }),
      counts: TimerRecordSchema.properties.counts,
      seconds: Type.Number({ minimum: 1, maximum: 7 * 86_400 }),
      strict: Type.Boolean(),
      /** Seconds until it should begin; null for at once. */
      inSeconds: Type.Union([Type.Number({ minimum: 0, maximum: 86_400 }), Type.Null()]),
      heldSeconds: Held,
    },
    Closed,
  );
export type StartTimer = Made<typeof startTimerSchema>;

export const beginTimerSchema = () =>
  Type.Object({ intent: Type.Literal("begin-timer"), timerId: Id, heldSeconds: Held }, Closed);

export const endTimerSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("end-timer"),
      timerId: Id,
      outcome: Type.Union([Type.Literal("done"), Type.Literal("kept"), Type.Literal("dropped")]),
      heldSeconds: Held,
    },
    Closed,
  );

const flaskOf = ({ flask }: Pick<TimerRecord, "flask">) => (flask === "" ? "" : msg` of ${flask}`);

/** A timer of the record with the key of its stage. */
function find({ stages }: RunRecord, timerId: string) {
  for (const { key, timers = [] } of stages) {
    const timer = timers.find((t) => t.id === timerId);
    if (timer) return { stageKey: key, timer };
  }
  return null;
}

/** What brings a timer back to how it stands. */
export const timerBefore = ({ id, startedAt, endedAt, outcome }: TimerRecord): Inverse => ({
  do: "timer",
  timerId: id,
  ...{ startedAt, endedAt, outcome },
});

/** The record with a timer changed; null where it has none of this id. */
export function withTimer(record: RunRecord, timerId: string, change: Partial<TimerRecord>) {
  const found = find(record, timerId);
  if (!found) return null;
  const after = { ...found.timer, ...change };
  return {
    before: found.timer,
    after,
    record: inStage(record, found.stageKey, (stage) => ({
      ...stage,
      timers: (stage.timers ?? []).map((t) => (t.id === timerId ? after : t)),
    })),
  };
}

/** What a timer was answered that is sent again; null where its id is new. */
function sentBefore(record: RunRecord, sent: StartTimer): Applied | null {
  const found = find(record, sent.id);
  if (!found) return null;
  const { stageKey, timer } = found;
  const same =
    stageKey === sent.stageKey &&
    timer.trialId === sent.trialId &&
    timer.what === sent.what &&
    timer.seconds === sent.seconds;
  return same ? success(null) : conflict(msg`This id is in use already, for something else`);
}

/** Sets a timer: it begins now, or in so many seconds. */
export const startTimer: ChangeKind<StartTimer> = {
  waits: true,
  timers: true,
  names: ({ id, trialId }) => [id, ...(trialId === null ? [] : [trialId])],
  apply(record, request, context) {
    const opened = openStage(record, request.stageKey);
    if (!opened.ok) return opened;
    const sent = sentBefore(record, request);
    if (sent) return sent;
    const { id, trialId, what, flask, counts, seconds, strict, inSeconds } = request;
    const twin = opened.value.stage.timers?.find(
      (t) => t.endedAt === null && t.what === what && t.trialId === trialId && t.flask === flask,
    );
    if (twin) {
      return refused(
        msg`${capitalized(flask === "" ? msg`This timer` : flask)} is timed already: ${what}. End that timer before you set it again`,
      );
    }
    const begins = new Date(Date.parse(context.now) + 1000 * (inSeconds ?? 0)).toISOString();
    const timer: TimerRecord = {
      ...{ id, trialId, what, flask, counts, seconds, strict },
      plannedAt: inSeconds === null ? null : begins,
      startedAt: inSeconds === null ? happenedAt(context, record, request.heldSeconds) : null,
      endedAt: null,
      outcome: null,
      person: context.person,
    };
    return success({
      record: inStage(record, request.stageKey, (stage) => ({
        ...stage,
        timers: [...(stage.timers ?? []), timer],
      })),
      inverse: {
        ...timerBefore(timer),
        startedAt: null,
        endedAt: context.now,
        outcome: "dropped",
      } as Inverse,
      entry: {
        description: msg`timer set${flaskOf(request)}: ${what}`,
        detail: { to: timer.startedAt === null ? "planned" : "running" },
      },
    });
  },
};

/** Begins a timer that was planned. */
export const beginTimer: ChangeKind<Made<typeof beginTimerSchema>> = {
  waits: true,
  timers: true,
  names: ({ timerId }) => [timerId],
  apply(record, { timerId, heldSeconds }, context) {
    const changed = withTimer(record, timerId, { startedAt: happenedAt(context, record, heldSeconds) });
    if (!changed) return missing(msg`This run has no such timer`);
    const { before } = changed;
    if (before.endedAt !== null) return refused(msg`This timer has ended already`);
    if (before.startedAt !== null) return refused(msg`This timer runs already`);
    return success({
      record: changed.record,
      inverse: timerBefore(before),
      entry: {
        description: msg`timer started${flaskOf(before)}: ${before.what}`,
        detail: { from: "planned", to: "running" },
      },
    });
  },
};

/** Ends a timer that runs, whatever became of its run. */
export const endTimer: ChangeKind<Made<typeof endTimerSchema>> = {
  whenClosed: true,
  waits: true,
  timers: true,
  names: ({ timerId }) => [timerId],
  apply(record, { timerId, outcome, heldSeconds }, context) {
    const endedAt = happenedAt(context, record, heldSeconds);
    const changed = withTimer(record, timerId, { endedAt, outcome });
    if (!changed) return missing(msg`This run has no such timer`);
    const { before, after } = changed;
    // Two devices press the same button: it has ended, which is what both want.
    if (before.endedAt !== null) return success(null);
    const words = timerWords(after);
    return success({
      record: changed.record,
      inverse: timerBefore(before),
      entry: {
        description: msg`timer ended${flaskOf(before)}: ${before.what}`,
        detail: { to: outcome === "dropped" ? msg`dropped` : outcome, ...(words ? { why: words } : {}) },
      },
    });
  },
};
