import { asc, sql } from "drizzle-orm";
import { rememberedStages, seriesTable, type SeriesTable } from "../../core/evaluate";
import type { RunRecord } from "../../core/run";
import { run } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { loadRunRecord } from "./stored-run";

/** More runs than one table shows. */
const most = 200;

/** Records of the server are never changed in place. */
const remembered = rememberedStages();

/** The runs of a series, in the order in which they were begun; none where there is no such series. */
export async function runsOfSeries(db: DatabaseConnection, seriesId: string): Promise<RunRecord[]> {
  const rows = await db
    .select({ id: run.id })
    .from(run)
    .where(sql`${run.series} ->> 'id' = ${seriesId}`)
    .orderBy(asc(run.startedAt), sql`(${run.series} ->> 'place')::int nulls first`, asc(run.id))
    .limit(most);
  const records: RunRecord[] = [];
  for (const { id } of rows) {
    const record = await loadRunRecord(db, id);
    if (record) records.push(record);
  }
  return records;
}

/** Results of the runs of a series beside each other. */
export const tableOfSeries = (records: readonly RunRecord[], unit: string): SeriesTable =>
  seriesTable(records, unit, remembered);
