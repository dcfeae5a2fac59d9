import type { ChangeDetail } from "../../core/change";
import type { Method } from "../../core/method";
import type { HouseRules } from "../../core/rules";
import type { RunRequest, StartRun } from "../../protocol/requests";
import type { AddSolution, EditSolution, MakeSolution } from "../../protocol/shelf";
import { lab } from "../database/schema";
import type { Database } from "../database/types";
import type { Journal } from "../journal/journal";
import type { Line } from "../journal/line";
import { type Beginning, beginLab } from "./begin-lab";
import { bringRunBack, type RunBack } from "./bring-run-back";
import { changeRun } from "./change-run";
import type { By } from "./deed";
import { saveHouseRules } from "./house-rules";
import { importRecords } from "../import/import-records";
import { type ImportRecords, type PackedImport, unpacked } from "../import/packed";
import { type LabDeed, labOf, recordDeed, saveLetterhead, setClockRight } from "./lab";
import { bringMethodBack, putMissingMethods, removeMethod, saveMethod } from "./methods";
import { addSolution, editSolution, makeSolution, putAll } from "./shelf";
import { startRun } from "./start-run";

/** How a command of each kind is carried out again, from what its line in the journal holds. */
type Replay = (db: Database, data: never, at: Date) => Promise<unknown>;
const replays: Readonly<Record<string, Replay>> = {
  begin: (db, data: Beginning, at) => beginLab(db, data, at),
  catalog: (db, data: readonly Method[], at) => putMissingMethods(db, data, at),
  run: (db, data: { runId: string; request: RunRequest; device: string; from: string | null }, at) =>
    changeRun(db, data.runId, data.request, at, data.device, data.from),
  start: (db, data: StartRun, at) => startRun(db, data, at),
  bottle: (db, data: AddSolution | MakeSolution, at) =>
    data.intent === "add" ? addSolution(db, data, at) : makeSolution(db, data, at),
  bottles: (db, data: readonly (AddSolution | MakeSolution)[], at) => putAll(db, data, at),
  "edit-bottle": (db, data: { id: string; request: EditSolution; from: string | null }, at) =>
    editSolution(db, data.id, data.request, at, data.from),
  method: (db, data: { data: Method; by: By }, at) => saveMethod(db, data.data, data.by, at),
  "remove-method": (db, data: { id: string; by: By }, at) => removeMethod(db, data.id, data.by, at),
  "method-back": (db, data: { id: string; by: By }, at) => bringMethodBack(db, data.id, data.by, at),
  "house-rules": (db, data: { data: HouseRules; by: By; detail: ChangeDetail }, at) =>
    saveHouseRules(db, data.data, data.by, data.detail, at),
  clock: (db, data: { person: string; from: string | null }, at) =>
    setClockRight(db, data.person, data.from, at),
  letterhead: (db, data: { text: string; person: string; from: string | null }, at) =>
    saveLetterhead(db, data, data.from, at),
  deed: (db, data: LabDeed, at) => recordDeed(db, data, at),
  import: (db, data: PackedImport | ImportRecords, at) => importRecords(db, unpacked(data), at),
  "run-back": (db, data: RunBack, at) => bringRunBack(db, data, at),
};

/** A line of the journal that could not be carried out again, in words. */
export interface NotReplayed {
  readonly seq: number;
  readonly kind: string;
  readonly at: string;
  readonly why: string;
}

async function replayed(db: Database, { kind, data, at, seq }: Line): Promise<string | null> {
  const replay = replays[kind];
  if (!replay) return "this program does not know commands of this kind";
  try {
    await replay(db, data as never, new Date(at));
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
  return (await labOf(db))?.journalSeq === seq ? null : "it is not accepted any more";
}

/**
 * Carries out those lines of a journal again that a database has not seen, in order, by the functions that carried them out at
 * first. Returns how many there were, and those that failed.
 */
export async function replay(
  db: Database,
  journal: Journal,
  lines: readonly Line[],
): Promise<{ readonly count: number; readonly failed: readonly NotReplayed[] }> {
  const done = (await labOf(db))?.journalSeq ?? 0;
  const behind = lines.filter(({ seq }) => seq > done);
  const failed: NotReplayed[] = [];
  try {
    for (const line of behind) {
      journal.replayed = line;
      const why = await replayed(db, line);
      if (why === null) continue;
      const { seq, kind, at, check } = line;
      failed.push({ seq, kind, at, why });
      await db.update(lab).set({ journalSeq: seq, journalCheck: check });
    }
  } finally {
    journal.replayed = null;
  }
  return { count: behind.length, failed };
}
