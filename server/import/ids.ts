import { validate as isUuid } from "uuid";
import { sql } from "drizzle-orm";
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

/** Ids of parts of some records that stand in the lab already: they belong to other runs, where the records themselves are new. */
export async function partsHere(
  db: DatabaseConnection,
  records: readonly RunRecord[],
): Promise<ReadonlySet<string>> {
  const all = records.map(idsOf);
  const tables = [
    [stage, stage.id, all.flatMap(({ stages }) => stages)],
    [trial, trial.id, all.flatMap(({ trials }) => trials)],
    [observation, observation.id, all.flatMap(({ readings }) => readings)],
    [trace, trace.id, all.flatMap(({ traces }) => traces)],
    [timer, timer.id, all.flatMap(({ timers }) => timers)],
  ] as const;
  const found = new Set<string>();
  for (const [table, id, ids] of tables) {
    if (ids.length === 0) continue;
    const rows = await db
      .select({ id })
      .from(table)
      .where(sql`${id} = any(${sql.param(ids)}::uuid[])`);
    for (const row of rows) found.add(row.id);
  }
  return found;
}

/** The ids of all parts of a record. */
export const partIds = (record: RunRecord): readonly string[] => Object.values(idsOf(record)).flat();
