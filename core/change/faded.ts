import { Type } from "@sinclair/typebox";
import { type Observation, presentObservation, trialWords } from "../record";
import { success } from "../result";
import { type ChangeKind, missing, refused } from "./change";
import { type Inverse, supersedes, together } from "./inverse";
import { Closed, Id, Key, type Made } from "./parts";
import { inHolder, openStage } from "./place";
import { writeReading } from "./reading";
import { timerBefore, withTimer } from "./timer";
import { msg } from "../text";

export const fadedSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("faded"),
      stageKey: Key,
      trialId: Id,
      /** Id of the mark that is made of it. */
      markId: Id,
      /** How long it stayed, s. */
      seconds: Type.Number({ minimum: 0, maximum: 86_400 }),
      /** The stopwatch, where one ran. */
      timerId: Type.Union([Id, Type.Null()]),
    },
    Closed,
  );

/** The color of an end did not stay: its reading becomes a possible end point, and the trial goes on. */
export const colorFaded: ChangeKind<Made<typeof fadedSchema>> = {
  timers: true,
  apply(record, request, context) {
    const { stageKey, trialId, markId, timerId } = request;
    const opened = openStage(record, stageKey);
    if (!opened.ok) return opened;
    const { definition, stage } = opened.value;
    const titer = definition.inputs.find((input) => input.is === "titer");
    const trial = stage.trials.find((t) => t.id === trialId);
    if (!titer || !trial) return missing(msg`This run has no such trial`);
    const final = presentObservation(trial.observations, titer.symbol, "burette.final");
    if (!final) return refused(msg`This trial has no end point that could have faded`);
    const reason = `faded after ${Math.round(request.seconds)} s`;
    const { symbol } = titer;
    const { person, now: at } = context;
    const mark = { id: markId, symbol, kind: "burette.maybe" as const, text: final.text };
    const place = { stageKey, trialId };
    const marked = writeReading(record, place, {
      ...mark,
      source: final.source,
      person,
      at,
      supersedes: null,
      reason,
    });
    if (!marked.ok) return marked;
    if (!marked.value) return success(null);
    const gone: Observation = {
      ...final,
      id: context.newId(`${final.id}:faded`),
      ...{ text: "", value: null, person, at, reason },
      supersedes: final.id,
    };
    const inverses: Inverse[] = [supersedes(final.id, final), marked.value.inverse];
    const opening = inHolder(marked.value.record, place, (all) => [...all, gone]);
    const timed = timerId === null ? null : withTimer(opening, timerId, { endedAt: at, outcome: "faded" });
    const ran = timed && timed.before.endedAt === null ? timed : null;
    if (ran) inverses.push(timerBefore(ran.before));
    return success({
      record: ran?.record ?? opening,
      inverse: together(inverses),
      entry: {
        description: msg`end point of ${trialWords(trial)} faded`,
        detail: { from: final.text, to: msg`a possible end point`, why: reason },
      },
    });
  },
};
