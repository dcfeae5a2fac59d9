import { validate as isUuid } from "uuid";
import { inArray, sql } from "drizzle-orm";
import type { RunRecord } from "../../core/run";
import { msg, type Phrase } from "../../core/text";
import { observation, stage, timer, trace, trial } from "../database/schema";
import type { DatabaseConnection } from "../database/types";

const readingsOf = ({ stages }: RunRecord) =>
  [...stages, ...stages.flatMap((s) => s.trials)].flatMap(({ observations }) => observations);

/** Ids by which the parts of a record stand in the database, by the kind of part. */
function idsOf(record: RunRecord) {
  const { stages } = record;
  const trials = stages.flatMap((s) => s.trials);
  return {
    stages: stages.map(({ id }) => id),
    trials: trials.map(({ id }) => id),
    readings: readingsOf(record).map(({ id }) => id),
    traces: stages.flatMap((s) => (s.traces ?? []).map(({ id }) => id)),
    timers: stages.flatMap((s) => (s.timers ?? []).map(({ id }) => id)),
  };
}

/** Why a record's ids can stand in no database; null where they can. */
export function unfitIds(record: RunRecord): Phrase | null {
  const kinds = Object.values(idsOf(record));
  const odd = [record.id, ...kinds.flat()].find((id) => !isUuid(id));
  if (odd !== undefined) return msg`The id “${odd}” is not a UUID, so no lab can have exported this record`;
  const twice = kinds.flatMap((ids) => ids.filter((id, i) => ids.indexOf(id) !== i))[0];
  if (twice !== undefined) return msg`The id ${twice} stands in the record twice`;
  const bottles = new Set(record.solutions?.map(({ assignmentId }) => assignmentId));
  const lost = readingsOf(record).find(({ assignment }) => assignment != null && !bottles.has(assignment));
  return lost
    ? msg`The reading ${lost.text} (${lost.symbol}) names a bottle that is missing from the record`
    : null;
}

/** More parameters than this no single statement takes. */
const atOnce = 5000;

/** Whether parts of a record stand in the lab already, as part of another run. */
export async function partsElsewhere(db: DatabaseConnection, record: RunRecord): Promise<boolean> {
  const { stages, trials, readings, traces, timers } = idsOf(record);
  const tables = [
    [stage, stage.id, stages],
    [trial, trial.id, trials],
    [observation, observation.id, readings],
    [trace, trace.id, traces],
    [timer, timer.id, timers],
  ] as const;
  for (const [table, column, ids] of tables)
    for (let at = 0; at < ids.length; at += atOnce) {
      const found = await db
        .select({ one: sql`1` })
        .from(table)
        .where(inArray(column, ids.slice(at, at + atOnce)))
        .limit(1);
      if (found.length > 0) return true;
    }
  return false;
}
