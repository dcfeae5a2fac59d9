import { Type } from "@sinclair/typebox";
import { CurvePlaceSchema, ObservationKindSchema } from "../record";
import type { ChangeKind } from "./change";
import { happenedAt } from "./change";
import { together } from "./inverse";
import {
  Closed,
  Held,
  Id,
  InputSymbol,
  Key,
  type Made,
  ReadingText,
  Reason,
  Short,
  TrialKind,
} from "./parts";
import { success } from "../result";
import { openStage } from "./place";
import { beginTrial, readingSentBefore, takeBackSpread, writeReading } from "./reading";

export const observeSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("observe"),
      /** Made by the sender, so that a request sent again after a lost answer is written once. */
      id: Id,
      stageKey: Key,
      /** Null for what is read once for a stage. A new id begins a trial. */
      trial: Type.Union([Type.Object({ id: Id, kind: TrialKind }, Closed), Type.Null()]),
      symbol: InputSymbol,
      kind: ObservationKindSchema,
      text: ReadingText,
      supersedes: Type.Union([Id, Type.Null()]),
      reason: Type.Union([Reason, Type.Null()]),
      /** Who read it, where that is not the run's bench. */
      person: Type.Optional(Short),
      /** Where it was not typed. */
      source: Type.Optional(Type.Union([Type.Literal("typed"), Type.Literal("instrument")])),
      /** Where it is a point of a titration curve. */
      point: Type.Optional(CurvePlaceSchema),
      heldSeconds: Held,
    },
    Closed,
  );
export type Observe = Made<typeof observeSchema>;

/** One reading of a stage or of a trial, which it may begin; or the correction of one. */
export const observe: ChangeKind<Observe> = {
  waits: true,
  names: ({ id, trial, supersedes }) => [
    id,
    ...(trial ? [trial.id] : []),
    ...(supersedes === null ? [] : [supersedes]),
  ],
  apply(record, request, context) {
    const opened = openStage(record, request.stageKey);
    if (!opened.ok) return opened;
    const { trial, stageKey } = request;
    const place = { stageKey, trialId: trial?.id ?? null };
    const sent = readingSentBefore(record, place, request);
    if (sent) return sent;
    const begun = trial ? beginTrial(record, stageKey, trial, context) : null;
    if (begun && !begun.ok) return begun;
    const { id, symbol, kind, text, supersedes, reason } = request;
    const written = writeReading(begun?.value ?? record, place, {
      ...{ id, symbol, kind, text, supersedes, reason },
      source: request.source ?? "typed",
      person: request.person?.trim() || context.person,
      at: happenedAt(context, record, request.heldSeconds),
      ...(request.point ? { point: request.point } : {}),
    });
    if (!written.ok) return written;
    if (!written.value) return success(null);
    const cleared = takeBackSpread(written.value.record, place, request, context);
    return {
      ok: true,
      value: {
        record: cleared.record,
        inverse: together([written.value.inverse, ...cleared.inverses]),
        entry: { description: written.value.what },
      },
    };
  },
};
