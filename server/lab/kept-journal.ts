import { existsSync, renameSync } from "node:fs";
import path from "node:path";
import { counted, inEnglish } from "../../core/text";
import type { Backup } from "../backup/files";
import { labOf, recordDeed } from "../commands/lab";
import { type NotReplayed, replay } from "../commands/replay";
import { lab } from "../database/schema";
import type { Database } from "../database/types";
import { beginning } from "../journal/line";
import { Journal } from "../journal/journal";
import { keepJournal } from "../journal/recorded";
import { type Base, type Fault, journalFolder, type Mark, type StoredJournal } from "../journal/segments";
import { journalIn, type LastStop, type Rebuilt } from "./recover";

/** How the database came to be that is being opened. */
export interface HowOpened {
  readonly stop: LastStop;
  readonly rebuilt: Rebuilt | null;
  /** True for one that was made just now. */
  readonly fresh: boolean;
}

const minute = (iso: string) => `${iso.slice(0, 16).replace("T", " ")} UTC`;

/** How far a database has come, in which journal; null where it has never been in one. */
async function markOf(db: Database): Promise<Mark | null> {
  const there = await labOf(db);
  return there?.journal ? { journal: there.journal, seq: there.journalSeq, check: there.journalCheck } : null;
}

const setMark = (db: Database, { journal, seq, check }: Mark) =>
  db.update(lab).set({ journal, journalSeq: seq, journalCheck: check });

/** Whether a database stands at a line of this journal. */
function isIn(stored: StoredJournal, { journal, seq, check }: Mark): boolean {
  if (journal !== stored.id) return false;
  if (seq === stored.after.seq) return check === stored.after.check;
  return stored.segments.some(({ lines }) => lines.some((line) => line.seq === seq && line.check === check));
}

const sameMark = (a: Mark | null, b: Mark | null) =>
  a?.journal === b?.journal && a?.seq === b?.seq && a?.check === b?.check;

/** Whether a journal begins at a database as it stands. */
function beginsAt({ base, after }: StoredJournal, mark: Mark | null): boolean {
  if (base === null || after.seq > 0) return false;
  return base.kind === "empty" ? mark === null : sameMark(base.held, mark);
}

/** What a journal that begins now can be replayed on. */
function baseOf(fresh: boolean, backup: Backup | null): Base | null {
  if (fresh) return { kind: "empty" };
  if (!backup) return null;
  return { kind: "backup", name: backup.name, sha256: backup.sha256, held: backup.journal ?? null };
}

/**
 * The journal that goes with a database: the one of its folder, once the database has been brought up to its end, or a new one where
 * the folder has none that fits. `told` says in words what was done.
 */
export async function keptJournal(
  db: Database,
  folder: string,
  labId: string,
  backup: Backup | null,
  how: HowOpened,
): Promise<{ readonly journal: Journal; readonly messages: readonly string[] }> {
  const mark = await markOf(db);
  const stored = journalIn(folder);
  const fits = stored !== null && ((mark !== null && isIn(stored, mark)) || beginsAt(stored, mark));
  if (!fits) {
    const messages = setAside(folder);
    const journal = Journal.begin(folder, labId, baseOf(how.fresh, backup));
    keepJournal(db, journal);
    if (await labOf(db)) await setMark(db, { journal: journal.id, ...beginning });
    return { journal, messages: [...messages, ...cutWithoutBase(how)] };
  }
  const journal = Journal.open(folder, stored);
  if (!journal) throw new Error(`The journal in ${folder} cannot be read`);
  keepJournal(db, journal);
  if (mark !== null && mark.journal !== stored.id) await setMark(db, { journal: stored.id, ...beginning });
  const lines = stored.segments.flatMap((segment) => segment.lines);
  const { count, failed } = await replay(db, journal, lines);
  // What the database held already is not missing in it: damage there is told by the check of the journal.
  const held = mark?.journal === stored.id ? mark.seq : 0;
  const lost = stored.faults.filter(({ seq }) => seq > held);
  const missing = [...failed.map(failure), ...lost.map(damage)];
  const messages = [...whatWasDone(how, count, missing.length === 0), ...missing, ...cutWithoutBase(how)];
  if (how.rebuilt) {
    const [description = ""] = messages;
    await recordDeed(db, { about: "backup", subject: "The lab", person: "", description });
  }
  return { journal, messages: messages };
}

const failure = ({ seq, kind, at, why }: NotReplayed): string =>
  `Line ${seq} of the journal (${kind}, ${minute(at)}) could not be made again: ${why}. It is kept in the journal.`;

const damage = ({ seq }: Fault): string =>
  `Line ${seq} of the journal is damaged: what it held may be missing. ./bin/check has the details.`;

function whatWasDone({ stop, rebuilt }: HowOpened, count: number, all: boolean): string[] {
  const changes = inEnglish(counted(count, "change"));
  if (!rebuilt)
    return count === 0
      ? []
      : [`${changes} from the journal were missing in the database and were made again.`];
  const from = rebuilt.backup ? `the backup of ${minute(rebuilt.backup.at)}` : "its beginning";
  const why = stop === "cut" ? "The computer stopped without warning" : "The database could not be opened";
  return [
    `${why}. The lab was rebuilt from ${from} and ${changes} in the journal${all ? "; nothing that was confirmed is missing" : ""}.`,
  ];
}

const cutWithoutBase = ({ stop, rebuilt }: HowOpened): string[] =>
  stop === "cut" && !rebuilt
    ? [
        "The computer stopped without warning, and there was no backup to rebuild the lab from: readings of the last minutes may be missing. Check the newest runs.",
      ]
    : [];

/** Puts a journal aside that does not go with the database. */
function setAside(folder: string): string[] {
  const place = journalFolder(folder);
  if (!existsSync(place)) return [];
  const name = `journal.before-${new Date().toISOString().replace(/[:.]/g, "-")}`;
  renameSync(place, path.join(folder, name));
  return [
    `The journal in the folder does not match the database. It was set aside as ${name}, and a new one was begun.`,
  ];
}
