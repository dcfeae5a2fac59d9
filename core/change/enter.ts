import type { RunRecord } from "../run";
import { Type } from "@sinclair/typebox";
import { CurvePlaceSchema, ObservationKindSchema } from "../record";
import { success, type Result } from "../result";
import { sourceWords, msg, type Phrase } from "../text";
import { type ChangeKind, happenedAt, type ChangeContext, type ChangeProblem, refused } from "./change";
import { type Inverse, together } from "./inverse";
import { Closed, Held, Id, InputSymbol, Key, type Made, ReadingText, Short, TrialKind } from "./parts";
import { openStage } from "./place";
import { beginTrial, readingSentBefore, writeReading } from "./reading";

export const enterSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("enter"),
      stageKey: Key,
      source: Type.Union([
        Type.Literal("typed"),
        Type.Literal("instrument"),
        Type.Literal("imported"),
        Type.Literal("paper"),
      ]),
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
                  /** Where it is a point of a titration curve. */
                  point: Type.Optional(CurvePlaceSchema),
                },
                Closed,
              ),
              { minItems: 1, maxItems: 200 },
            ),
            /** When it was read, by the time that was written on paper; when it is entered where nothing is said. */
            at: Type.Optional(Type.String({ format: "date-time" })),
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
  readonly what: Phrase;
}

/** Clocks differ a little: a time is ahead only beyond this, ms. */
const clocksDiffer = 5 * 60_000;

/** What was written on paper longer ago than this has a wrong date, ms. */
const longAgo = 366 * 86_400_000;

/** Why the time that was written cannot be; null where it can. It may lie before the run was begun: paper came first. */
export function problemOfTime(at: string, now: string): Phrase | null {
  const ago = Date.parse(now) - Date.parse(at);
  if (ago < -clocksDiffer) return msg`This time is in the future: check the date and time`;
  return ago > longAgo ? msg`This is more than a year ago: check the date` : null;
}

/** Readings of one flask, or of the stage. */
function enterRow(
  record: RunRecord,
  { trial, readings, at: written }: Row,
  { stageKey, source, entered: now }: Pick<Enter, "stageKey" | "source"> & { readonly entered: string },
  context: ChangeContext,
): Result<RowEntered, ChangeProblem> {
  const wrong = written === undefined ? null : problemOfTime(written, context.now);
  if (wrong !== null) return refused(wrong);
  const at = written === undefined ? now : new Date(written).toISOString();
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
      return { ok: false, problem: { ...one.problem, message: msg`${where}${one.problem.message}` } };
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
    const entered = happenedAt(context, record, request.heldSeconds);
    let all: RowEntered = { record, inverses: [], what: "" };
    for (const row of request.rows) {
      const done = enterRow(all.record, row, { ...request, entered }, context);
      if (!done.ok) return done;
      const { inverses, ...after } = done.value;
      // A flask of which everything stands already is not begun by it.
      if (inverses.length > 0) all = { ...after, inverses: [...inverses, ...all.inverses] };
    }
    const { inverses, what } = all;
    if (inverses.length === 0) return success(null);
    const description =
      inverses.length === 1 ? what : msg`${inverses.length} readings${sourceWords[request.source]}`;
    return success({ record: all.record, inverse: together(inverses), entry: { description } });
  },
};
