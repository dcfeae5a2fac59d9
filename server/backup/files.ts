import { createHash } from "node:crypto";
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from "node:fs";
import path from "node:path";
import { flush, readJson, writeDurably } from "../database/durable-file";
import type { Mark } from "../journal/segments";

/** Why a backup was made. */
export type BackupReason = "daily" | "by hand" | "before a migration" | "before a restore";

/** What stands beside a backup, as JSON. */
export interface Manifest {
  readonly format: "steady-bead/backup";
  readonly formatVersion: 1;
  readonly at: string;
  readonly reason: BackupReason;
  readonly labId: string;
  readonly bytes: number;
  readonly sha256: string;
  /** Rows of each table. */
  readonly counts: Readonly<Record<string, number>>;
  /** When the copy was opened and looked at, and how many runs were computed again from it. */
  readonly verified: { readonly at: string; readonly runs: number } | null;
  /** How far it had come in the journal; nothing in backups from before there was one. */
  readonly journal?: Mark | null;
}

export interface Backup extends Manifest {
  readonly name: string;
  /** Path of the copy. */
  readonly file: string;
}

/** Beside the database, and, where `BACKUP_DIR` names a folder on another disk, there too. */
export const backupFolders = (folder: string): string[] => [
  path.join(folder, "backups"),
  ...(process.env.BACKUP_DIR ? [path.resolve(process.env.BACKUP_DIR)] : []),
];

const ending = ".tar.gz";
const manifestOf = (file: string) => `${file.slice(0, -ending.length)}.json`;

export const sha256Of = (data: Buffer): string => createHash("sha256").update(data).digest("hex");

/** The backup in a file of this name; null where it has no manifest that can be read. */
export function backupAt(file: string): Backup | null {
  const manifest = existsSync(file) ? readJson<Manifest>(manifestOf(file)) : null;
  return manifest?.format === "steady-bead/backup" ? { ...manifest, name: path.basename(file), file } : null;
}

/** Which lab lives in a folder; null where nothing there says it. */
const labOf = (folder: string): string | null =>
  readJson<{ labId?: string }>(path.join(folder, "lab.json"))?.labId ?? null;

/** All backups of a lab, the newest first; one that stands in two folders once. Those of other labs are left aside. */
export function listBackups(folder: string): Backup[] {
  const found = new Map<string, Backup>();
  const lab = labOf(folder);
  for (const place of backupFolders(folder)) {
    if (!existsSync(place)) continue;
    for (const name of readdirSync(place)) {
      const backup = name.endsWith(ending) ? backupAt(path.join(place, name)) : null;
      if (backup && (lab === null || backup.labId === lab) && !found.has(name)) found.set(name, backup);
    }
  }
  return [...found.values()].sort((a, b) => (a.at < b.at ? 1 : -1));
}

/** The newest backup that was opened and found whole. */
export const newestBackup = (folder: string): Backup | null =>
  listBackups(folder).find(({ verified }) => verified !== null) ?? null;

/** Writes a copy with its manifest; it counts as unverified until somebody looked. */
export function writeBackup(
  folder: string,
  data: Buffer,
  parts: Omit<Manifest, "format" | "formatVersion" | "bytes" | "sha256" | "verified">,
): Backup {
  const [place = folder] = backupFolders(folder);
  mkdirSync(place, { recursive: true });
  removeUnfinished(place);
  const name = `lab-${parts.at.replace(/[:.]/g, "-")}-${parts.reason.replaceAll(" ", "-")}${ending}`;
  const file = path.join(place, name);
  const manifest: Manifest = {
    format: "steady-bead/backup",
    formatVersion: 1,
    ...parts,
    bytes: data.length,
    sha256: sha256Of(data),
    verified: null,
  };
  writeDurably(file, data);
  writeDurably(manifestOf(file), JSON.stringify(manifest, null, 2));
  return { ...manifest, name, file };
}

/** Notes that a copy was opened and found whole. */
export function markVerified(backup: Backup, verified: NonNullable<Manifest["verified"]>): Backup {
  const manifest = Object.fromEntries(
    Object.entries({ ...backup, verified }).filter(([key]) => key !== "name" && key !== "file"),
  );
  writeDurably(manifestOf(backup.file), JSON.stringify(manifest, null, 2));
  return { ...backup, verified };
}

/** Puts a copy that did not stand the look at it aside, so that nobody restores it; the one before goes. */
export function setAside({ file }: Backup): void {
  const place = path.dirname(file);
  for (const name of readdirSync(place))
    if (name.endsWith(".failed")) rmSync(path.join(place, name), { force: true });
  renameSync(file, `${file}.failed`);
  rmSync(manifestOf(file), { force: true });
}

/** Puts a copy of a backup on the other disk, where there is one. Throws with a sentence where that cannot be done. */
export function copyElsewhere(folder: string, backup: Backup): void {
  for (const place of backupFolders(folder).slice(1)) {
    try {
      copyTo(place, backup);
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      throw new Error(`no second copy could be written to ${place}. Is that disk connected? (${why})`, {
        cause: error,
      });
    }
  }
}

function copyTo(place: string, { file, name }: Backup): void {
  // One level only: where the folder above is missing, the disk is not mounted.
  if (!existsSync(place)) mkdirSync(place);
  for (const from of [file, manifestOf(file)]) {
    const to = path.join(place, path.basename(from));
    copyFileSync(from, `${to}.part`);
    flush(`${to}.part`);
    renameSync(`${to}.part`, to);
  }
  flush(place);
  if (sha256Of(readFileSync(path.join(place, name))) !== sha256Of(readFileSync(file)))
    throw new Error("the copy is not the same as the backup");
}

/** Away with what a killed process left half written. */
function removeUnfinished(place: string): void {
  for (const name of readdirSync(place)) {
    if (name.endsWith(".part")) rmSync(path.join(place, name), { force: true });
  }
}

const days = 7;
const weeks = 4;
const onPurpose = 5;
const dayMs = 86_400_000;

/**
 * Which backups are kept, by name: the newest of each of the last seven days and four weeks that have one, the five newest that
 * were made by hand or before something, and always the newest that was verified.
 */
export function toKeep(
  backups: readonly Pick<Backup, "name" | "at" | "reason" | "verified">[],
): ReadonlySet<string> {
  const newestFirst = [...backups].sort((a, b) => (a.at < b.at ? 1 : -1));
  const sound = newestFirst.filter((b) => b.verified !== null);
  const newestOfEach = (length: number, most: number) => {
    const seen = new Map<number, string>();
    for (const { at, name } of sound) {
      const which = Math.floor(Date.parse(at) / (length * dayMs));
      if (!seen.has(which)) seen.set(which, name);
    }
    return [...seen.values()].slice(0, most);
  };
  return new Set([
    ...newestOfEach(1, days),
    ...newestOfEach(7, weeks),
    ...newestFirst
      .filter((b) => b.reason !== "daily")
      .slice(0, onPurpose)
      .map((b) => b.name),
    ...sound.slice(0, 1).map((b) => b.name),
  ]);
}

/** Removes the backups that are not kept, here and on the other disk. */
export function prune(folder: string): void {
  const all = new Set(listBackups(folder).map((b) => b.name));
  const keep = toKeep(listBackups(folder));
  for (const place of backupFolders(folder)) {
    if (!existsSync(place)) continue;
    for (const name of readdirSync(place)) {
      if (!all.has(name) || keep.has(name)) continue;
      rmSync(path.join(place, name), { force: true });
      rmSync(manifestOf(path.join(place, name)), { force: true });
    }
  }
}
