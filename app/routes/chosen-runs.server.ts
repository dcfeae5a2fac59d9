import { validate as isUuid } from "uuid";
import type { RunRecord } from "~/core/run";
import { database } from "~/server/lab/current";
import { loadRunRecord } from "~/server/queries/stored-run";

const most = 1000;

/** Ids of runs as a list in one text, each once; throws the answer 400 where it is none. */
export function runIdsIn(text: string): string[] {
  const ids = [...new Set(text.split(",").filter((id) => id !== ""))];
  if (ids.length === 0 || ids.length > most || !ids.every((id) => isUuid(id)))
    throw new Response(`Name 1 to ${most} runs by their ids.`, { status: 400 });
  return ids;
}

/** Runs by their ids, in that order; those that are not there are left out. */
export async function recordsOf(ids: readonly string[]): Promise<RunRecord[]> {
  const db = await database();
  const records: RunRecord[] = [];
  for (const id of ids) {
    const record = await loadRunRecord(db, id);
    if (record) records.push(record);
  }
  return records;
}
