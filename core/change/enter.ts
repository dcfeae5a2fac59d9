import { Type } from "@sinclair/typebox";
import { ObservationKindSchema } from "../record";
import { success } from "../result";
import { type ChangeKind, happenedAt } from "./change";
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

/** Many readings at once, all or none: a flask with what was taken for it and its first reading, or a table of a class. */
export const enter: ChangeKind<Enter> = {
  waits: true,
  names: ({ rows }) =>
    rows.flatMap(({ trial, readings }) => [...(trial ? [trial.id] : []), ...readings.map(({ id }) => id)]),
  apply(record, request, context) {
    const { stageKey, source } = request;
    const opened = openStage(record, stageKey);
    if (!opened.ok) return opened;
    const at = happenedAt(context, record, request.heldSeconds);
    const inverses: Inverse[] = [];
    let [now, what, written] = [record, "", 0];
    for (const { trial, readings } of request.rows) {
      const place = { stageKey, trialId: trial?.id ?? null };
      const begun = trial ? beginTrial(now, stageKey, trial, context) : null;
      if (begun && !begun.ok) return begun;
      let after = begun?.value ?? now;
      const own: Inverse[] = [];
      for (const { person, ...reading } of readings) {
        const sent = readingSentBefore(record, place, reading);
        if (sent?.ok) continue;
        if (sent) return sent;
        const whole = { ...reading, supersedes: null, reason: null };
        const one = writeReading(after, place, {
          ...whole,
          source,
          person: person.trim() || context.person,
          at,
        });
        if (!one.ok) {
          const where = trial?.label ? `${trial.label}: ` : "";
          return { ok: false, problem: { ...one.problem, message: `${where}${one.problem.message}` } };
        }
        if (!one.value) continue;
        own.unshift(one.value.inverse);
        after = one.value.record;
        what = one.value.what;
        written++;
      }
      // A flask of which everything stands already is not begun by it.
      if (own.length === 0) continue;
      inverses.unshift(...own);
      now = after;
    }
    if (written === 0) return success(null);
    const description = written === 1 ? what : `${written} readings`;
    return success({ record: now, inverse: together(inverses), told: { description } });
  },
};
