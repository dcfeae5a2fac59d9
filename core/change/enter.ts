import type { RunRecord } from "../run";
import { Type } from "@sinclair/typebox";
import { ObservationKindSchema } from "../record";
import { success, type Result } from "../result";
import { type ChangeKind, happenedAt, type ChangeContext, type ChangeProblem } from "./change";
import { type Inverse, together } from "./inverse";
import { Closed, Held, Id, InputSymbol, Key, type Made, ReadingText, Short, TrialKind } from "./parts";
import { openStage } from "./place";
import { beginTrial, readingSentBefore, writeReading } from "./reading";

export const enterSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("enter"),
      stageKey: Key,
      source: Type.Union([Type.Literal("typed"), Type.Literal("instrument"), Type.Literal("imported")]),
      rows: Type.Array(
        Type.Object(
          {
            trial: Type.Union([
              Type.Object(
                { id: Id, kind: TrialKind, label: Type.Optional(Type.String({ maxLength: 40 })) },
                Closed,
              ),
              Type.Null(),
            ]),
            readings: Type.Array(
              Type.Object(
                {
                  id: Id,
                  symbol: InputSymbol,
                  kind: ObservationKindSchema,
                  text: ReadingText,
                  person: Short,
                },
                Closed,
              ),
              { minItems: 1, maxItems: 200 },
            ),
          },
          Closed,
        ),
        { minItems: 1, maxItems: 100 },
      ),
      heldSeconds: Held,
    },
    Closed,
  );
export type Enter = Made<typeof enterSchema>;

type Row = Enter["rows"][number];

interface RowEntered {
  readonly record: RunRecord;
  /** What takes its readings back, the last one first. */
  readonly inverses: readonly Inverse[];
  /** What was written last, in words. */
  readonly what: string;
}

/** Readings of one flask, or of the stage. */
function enterRow(
  record: RunRecord,
  { trial, readings }: Row,
  { stageKey, source, at }: Pick<Enter, "stageKey" | "source"> & { readonly at: string },
  context: ChangeContext,
): Result<RowEntered, ChangeProblem> {
  const place = { stageKey, trialId: trial?.id ?? null };
  const begun = trial ? beginTrial(record, stageKey, trial, context) : success(record);
  if (!begun.ok) return begun;
  let entered: RowEntered = { record: begun.value, inverses: [], what: "" };
  for (const { person, ...reading } of readings) {
    const sent = readingSentBefore(record, place, reading);
    if (sent?.ok) continue;
    if (sent) return sent;
    const by = { source, person: person.trim() || context.person, at };
    const one = writeReading(entered.record, place, { ...reading, supersedes: null, reason: null, ...by });
    if (!one.ok) {
      const where = trial?.label ? `${trial.label}: ` : "";
      return { ok: false, problem: { ...one.problem, message: `${where}${one.problem.message}` } };
    }
    if (!one.value) continue;
    const { record: after, inverse, what } = one.value;
    entered = { record: after, inverses: [inverse, ...entered.inverses], what };
  }
  return success(entered);
}

/** Many readings at once, all or none: a flask with what was taken for it and its first reading, or a table of a class. */
export const enter: ChangeKind<Enter> = {
  waits: true,
  names: ({ rows }) =>
    rows.flatMap(({ trial, readings }) => [...(trial ? [trial.id] : []), ...readings.map(({ id }) => id)]),
  apply(record, request, context) {
    const opened = openStage(record, request.stageKey);
    if (!opened.ok) return opened;
    const at = happenedAt(context, record, request.heldSeconds);
    let all: RowEntered = { record, inverses: [], what: "" };
    for (const row of request.rows) {
      const entered = enterRow(all.record, row, { ...request, at }, context);
      if (!entered.ok) return entered;
      const { inverses, ...after } = entered.value;
      // A flask of which everything stands already is not begun by it.
      if (inverses.length > 0) all = { ...after, inverses: [...inverses, ...all.inverses] };
    }
    const { inverses, what } = all;
    if (inverses.length === 0) return success(null);
    const description = inverses.length === 1 ? what : `${inverses.length} readings`;
    return success({ record: all.record, inverse: together(inverses), told: { description } });
  },
};
