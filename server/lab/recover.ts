import { existsSync, mkdirSync, readFileSync, renameSync, rmSync } from "node:fs";
import { uptime } from "node:os";
import path from "node:path";
import { extract } from "tar";
import { type Backup, listBackups, sha256Of } from "../backup/files";
import { flush, readJson } from "../database/durable-file";
import { putEmptyDatabase } from "../database/empty-database";
import { readJournal, type StoredJournal } from "../journal/segments";
import {
  beginUnfinished,
  databaseFolder,
  finishUnfinished,
  type Marker,
  markerFile,
  unfinishedFolder,
} from "./lab-folder";

/*
 * The database's files are not flushed as they are written: after a power cut they may hold any mixture of old and new. So they are
 * not looked at then. What was confirmed stands in the journal, which is flushed, and in backups.
 */

/** How a lab was left: closed; its process was killed, and the system has what it wrote; or the machine itself stopped. */
export type LastStop = "closed" | "killed" | "cut";

/** Tells one start of this machine from the next. */
export function thisBoot(): string {
  if (process.env.STEADY_BEAD_BOOT) return process.env.STEADY_BEAD_BOOT;
  try {
    return readFileSync("/proc/sys/kernel/random/boot_id", "utf8").trim();
  } catch {
    // To the minute, since the clock may be put right meanwhile.
    return `since ${Math.round((Date.now() / 1000 - uptime()) / 60)}`;
  }
}

export function lastStop(folder: string): LastStop {
  const open = readJson<Partial<Marker>>(markerFile(folder))?.open;
  if (!open) return "closed";
  return open === thisBoot() ? "killed" : "cut";
}

/** What a database was put together from. */
export interface Rebuilt {
  /** Null for one that was begun anew, by a journal that has all from the beginning. */
  readonly backup: Pick<Backup, "name" | "at"> | null;
  /** Where the files are that were there before. */
  readonly keptIn: string | null;
}

/** Sound backups that the journal goes on from, the newest first; null stands for an empty database. */
function bases(folder: string, stored: StoredJournal): (Backup | null)[] {
  const all = listBackups(folder).filter(({ verified }) => verified !== null);
  const later = all.filter((b) => b.journal?.journal === stored.id && b.journal.seq >= stored.after.seq);
  const { base } = stored;
  if (stored.after.seq > 0 || base === null) return later;
  if (base.kind === "empty") return [...later, null];
  return [...later, ...all.filter((b) => b.name === base.name && b.sha256 === base.sha256)];
}

/** The journal of a folder where its lines can be read. */
export function journalIn(folder: string): StoredJournal | null {
  try {
    return readJournal(folder);
  } catch {
    return null;
  }
}

/** Whether the lab in a folder can be put together anew from a backup and its journal. */
export function canRebuild(folder: string): boolean {
  const stored = journalIn(folder);
  return stored !== null && bases(folder, stored).length > 0;
}

/**
 * Puts a database in place that the journal can be replayed on; the files that were there are kept aside, those of an earlier time
 * are removed. Null where nothing is there to go on from, and then nothing is changed.
 */
export async function rebuild(folder: string): Promise<Rebuilt | null> {
  const stored = journalIn(folder);
  for (const base of stored ? bases(folder, stored) : []) {
    beginUnfinished(folder);
    try {
      if (base === null) await putEmptyDatabase(unfinishedFolder(folder));
      else unpack(base, unfinishedFolder(folder));
    } catch (error) {
      console.error(`${base?.name ?? "The empty database"} cannot be used:`, (error as Error).message);
      continue;
    }
    const keptIn = keepAside(folder);
    finishUnfinished(folder);
    flush(folder);
    return { backup: base, keptIn };
  }
  return null;
}

/** Unpacks a backup into a folder. Throws where it is not what it was when it was made. */
export function unpack(backup: Backup, into: string): void {
  if (sha256Of(readFileSync(backup.file)) !== backup.sha256) throw new Error("its checksum differs");
  mkdirFresh(into);
  extract({ file: backup.file, cwd: into, sync: true });
}

function mkdirFresh(folder: string): void {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder);
}

/** Moves the database's files aside, and returns where to; null where there are none. */
function keepAside(folder: string): string | null {
  const [place, aside] = [databaseFolder(folder), path.join(folder, "postgres.not-trusted")];
  if (!existsSync(place)) return null;
  rmSync(aside, { recursive: true, force: true });
  renameSync(place, aside);
  return aside;
}
