import { validate as isUuid } from "uuid";
import type { RunRecord } from "~/core/run";
import { database } from "~/server/lab/current";
import { labFingerprint } from "~/server/lab/signer";
import { labWords } from "~/server/queries/in-words";
import { loadRunRecord } from "~/server/queries/stored-run";
import { type ClassSheet, classSheetOf } from "../features/history/class-sheet";

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

/** The sheet of the runs that an address names; throws the answer 404 where none of them is there. */
export async function chosenSheet(request: Request): Promise<ClassSheet> {
  const ids = runIdsIn(new URL(request.url).searchParams.get("runs") ?? "");
  const words = await labWords(await database());
  const stored = await recordsOf(ids);
  if (stored.length === 0) throw new Response("None of these runs is there.", { status: 404 });
  return classSheetOf(stored, words.record, labFingerprint());
}
