import { Type } from "@sinclair/typebox";
import {
  mostPoints,
  ObservationKindSchema,
  takenBack,
  TraceDecimalsSchema,
  type TraceRecord,
} from "../record";
import { success } from "../result";
import type { RunRecord } from "../run";
import { type Applied, type ChangeKind, conflict, malformed, missing, refused } from "./change";
import { type Inverse, type Removal, together } from "./inverse";
import { Closed, Id, InputSymbol, Key, type Made, ReadingText, Reason, Short } from "./parts";
import { inStage, openStage } from "./place";
import { beginTrial, writeReading } from "./reading";
import { msg, unitText } from "../text";

export const addTraceSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("trace"),
      id: Id,
      stageKey: Key,
      /** A new id begins a trial. */
      trialId: Type.Union([Id, Type.Null()]),
      /** What is typed for that trial with it. */
      readings: Type.Array(
        Type.Object({ id: Id, symbol: InputSymbol, kind: ObservationKindSchema, text: ReadingText }, Closed),
        { maxItems: 20 },
      ),
      name: Type.String({ minLength: 1, maxLength: 80 }),
      xUnit: Type.Union([Type.Literal("nm"), Type.Literal("s")]),
      x: Type.Array(Type.Number(), { minItems: 2, maxItems: mostPoints }),
      absorbance: Type.Array(Type.Number(), { minItems: 2, maxItems: mostPoints }),
      decimals: Type.Optional(TraceDecimalsSchema),
      source: Type.Union([Type.Literal("instrument"), Type.Literal("imported")]),
      person: Short,
    },
    Closed,
  );
export type AddTrace = Made<typeof addTraceSchema>;

export const putAwaySchema = () =>
  Type.Object({ intent: Type.Literal("put-away"), traceId: Id, reason: Reason }, Closed);
export const bringBackSchema = () => Type.Object({ intent: Type.Literal("bring-back"), traceId: Id }, Closed);

/** What a trace was answered that is sent again; null where its id is new. */
function sentBefore({ stages }: RunRecord, sent: AddTrace): Applied | null {
  const there = stages.flatMap((s) => s.traces ?? []).find((t) => t.id === sent.id);
  if (!there) return null;
  const equal = (a: readonly number[], b: readonly number[]) =>
    a.length === b.length && a.every((v, i) => v === b[i]);
  const same =
    there.trialId === sent.trialId &&
    there.xUnit === sent.xUnit &&
    equal(there.x, sent.x) &&
    equal(there.absorbance, sent.absorbance);
  return same ? success(null) : conflict(msg`This id is in use already, for something else`);
}

/** A spectrum of a stage, or the course of a trial, which is begun with it. */
export const addTrace: ChangeKind<AddTrace> = {
  apply(record, request, context) {
    const sent = sentBefore(record, request);
    if (sent) return sent;
    const { id, stageKey, trialId, xUnit, x, absorbance, decimals, source } = request;
    const opened = openStage(record, stageKey);
    if (!opened.ok) return opened;
    if (x.length !== absorbance.length)
      return malformed(msg`There are ${x.length} points but ${absorbance.length} absorbances`);
    const digits = Object.values(decimals ?? {}).find(
      (one) => typeof one === "object" && one.length !== x.length,
    );
    if (digits) return malformed(msg`There are ${x.length} points, but decimals of another number of them`);
    const back = x.findIndex((value, i) => i > 0 && value <= (x[i - 1] ?? 0));
    if (back !== -1)
      return refused(
        msg`Point ${back + 1}: ${x[back] ?? ""} ${unitText(xUnit)} does not lie beyond the ${x[back - 1] ?? ""} before it`,
      );
    if (!context.allows(opened.value.definition).trace(xUnit, trialId !== null))
      return malformed(msg`This stage takes no such kinetic run`);
    const removed: Removal = { at: context.now, person: context.person, reason: takenBack };
    const inverses: Inverse[] = [{ do: "trace", traceId: id, removed }];
    let after = record;
    if (trialId !== null) {
      const begun = beginTrial(record, stageKey, { id: trialId, kind: "fine" }, context);
      if (!begun.ok) return begun;
      after = begun.value;
      for (const reading of request.readings) {
        const written = writeReading(
          after,
          { stageKey, trialId },
          {
            ...reading,
            supersedes: null,
            reason: null,
            source: "typed",
            person: request.person || context.person,
            at: context.now,
          },
        );
        if (!written.ok) return written;
        if (!written.value) continue;
        after = written.value.record;
        inverses.push(written.value.inverse);
      }
    }
    const name = request.name.trim();
    const trace: TraceRecord = {
      ...{ id, trialId, name, xUnit, x, absorbance, source },
      ...(decimals ? { decimals } : {}),
      person: request.person.trim() || context.person,
      at: context.now,
      removed: null,
    };
    const kind = xUnit === "nm" ? "spectrum" : "kinetic run";
    return success({
      record: inStage(after, stageKey, (stage) => ({ ...stage, traces: [...(stage.traces ?? []), trace] })),
      inverse: together(inverses),
      entry: { description: name.startsWith(kind) ? name : `${kind} ${name}` },
    });
  },
};

function setAside(record: RunRecord, traceId: string, removed: Removal | null): Applied {
  const stage = record.stages.find((s) => s.traces?.some((t) => t.id === traceId));
  const found = stage?.traces?.find((t) => t.id === traceId);
  if (!stage || !found) return missing(msg`This run has no such spectrum or kinetic run`);
  const away = removed !== null;
  if (away === (found.removed !== null))
    return refused(away ? msg`It is already archived` : msg`It is there already`);
  return success({
    record: inStage(record, stage.key, (s) => ({
      ...s,
      traces: (s.traces ?? []).map((t) => (t.id === traceId ? { ...t, removed } : t)),
    })),
    inverse: { do: "trace", traceId, removed: found.removed },
    entry: { description: msg`${away ? msg`archiving` : msg`restoring`} of ${found.name}` },
  });
}

export const putAway: ChangeKind<Made<typeof putAwaySchema>> = {
  apply: (record, { traceId, reason }, { now: at, person }) =>
    setAside(record, traceId, { at, person, reason: reason.trim() }),
};

export const bringBack: ChangeKind<Made<typeof bringBackSchema>> = {
  apply: (record, { traceId }) => setAside(record, traceId, null),
};
