import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { counted, inEnglish } from "../../core/text";
import { backupFolders, newestBackup } from "../backup/files";
import { readJson, writeDurably } from "../database/durable-file";

/**
 * The data folder cannot be opened as it is, and nothing was created or changed in it. Its message is for the person at the
 * terminal, with the ways out.
 */
export class LabFolderError extends Error {
  override readonly name = "LabFolderError";
}

/** Stands beside the database as `lab.json`: a lab lives here, whatever became of the database. */
export interface Marker {
  readonly format: "steady-bead/lab";
  readonly labId: string;
  readonly createdAt: string;
  readonly openedAt: string;
  readonly runs: number;
  /** While it is open: the start of the machine in which it was opened. */
  readonly open?: string;
}

/** The PostgreSQL whose files this program reads. */
export const postgresVersion = "18";

export const markerFile = (folder: string) => path.join(folder, "lab.json");
export const databaseFolder = (folder: string) => path.join(folder, "postgres");
/** A database that is being made stands here until it is whole. */
export const unfinishedFolder = (folder: string) => path.join(folder, "postgres.new");

/** Files and folders without which no database is whole. */
const parts = ["PG_VERSION", "global/pg_control", "base", "pg_wal", "pg_xact"];

/** Folders in which a lab was opened from here before, so that one that is suddenly empty is noticed. */
const knownFile = () => path.resolve(process.env.STEADY_BEAD_LABS ?? "data/labs.json");

type KnownLabs = Readonly<Record<string, Pick<Marker, "labId" | "createdAt" | "openedAt" | "runs">>>;

const day = (iso: string) => iso.slice(0, 10);

/** How to bring a lab back, in words. */
export function waysBack(folder: string): string {
  const newest = newestBackup(folder);
  const restore = newest
    ? `restore the newest backup, of ${newest.at.slice(0, 16).replace("T", " ")} UTC: DATA_DIR=${folder} ./bin/restore latest`
    : `restore a backup: DATA_DIR=${folder} ./bin/restore FILE (none was found in ${backupFolders(folder).join(" or ")})`;
  return `Ways out: if the disk or the mount is at fault, put that right and start again; or ${restore}.`;
}

const listing = (folder: string): string[] => {
  try {
    return readdirSync(folder);
  } catch (error) {
    if ((error as { code?: string }).code === "ENOENT") return [];
    throw error;
  }
};

/**
 * Looks at a data folder before anything is opened or created in it. True where a whole database stands there, false where a
 * new lab may begin. Throws a `LabFolderError` for all between: a lab that lives there and whose database is gone or not whole,
 * and a folder that held a lab when it was last seen from here.
 */
export function holdsLab(folder: string, begin = process.env.NEW_LAB === "yes"): boolean {
  const marker = readJson<Marker>(markerFile(folder));
  const inside = listing(databaseFolder(folder));
  const missing = parts.filter((part) => !existsSync(path.join(databaseFolder(folder), part)));
  if (inside.length > 0 && missing.length > 0) {
    throw new LabFolderError(
      `The database in ${folder} is not whole: ${missing.join(", ")} ${missing.length === 1 ? "is" : "are"} missing. ` +
        `Nothing was created or changed. ${waysBack(folder)}`,
    );
  }
  if (inside.length > 0) return true;
  if (marker) {
    throw new LabFolderError(
      `A lab lives in ${folder}${"createdAt" in marker ? ` (begun ${day(marker.createdAt)}, ${inEnglish(counted(marker.runs, "run"))})` : ""}, but its database is gone. ` +
        `Nothing was created. ${waysBack(folder)}`,
    );
  }
  const known = readJson<KnownLabs>(knownFile())?.[folder];
  if (known && !begin) {
    throw new LabFolderError(
      `${folder} is empty, and a lab with ${inEnglish(counted(known.runs, "run"))} was open there on ${day(known.openedAt)}. Is its disk not mounted? ` +
        `Nothing was created. ${waysBack(folder)} To begin a new lab there on purpose, start once with NEW_LAB=yes.`,
    );
  }
  return false;
}

/** What the lab in a folder is called; null where no marker says it. */
export const nameInMarker = (folder: string): string | null =>
  readJson<Partial<Marker>>(markerFile(folder))?.labId ?? null;

/** The version of the database's files where it is not the one that this program reads: told in words. */
export function checkPostgresVersion(folder: string): void {
  const version = readFileSync(path.join(databaseFolder(folder), "PG_VERSION"), "utf8").trim();
  if (version === postgresVersion) return;
  const newer = Number(version) > Number(postgresVersion);
  throw new LabFolderError(
    `The database in ${folder} was made by PostgreSQL ${version || "of an unknown version"}, and this program reads ${postgresVersion}: it is ${newer ? "newer than this program. Start a newer Steady Bead, or choose another folder with DATA_DIR" : "not one of Steady Bead's"}. Nothing was changed.`,
  );
}

/** What stands in the marker of a folder; null where there is none that says it. */
export const markerIn = (folder: string): Partial<Marker> | null =>
  readJson<Partial<Marker>>(markerFile(folder));

/** Notes that a lab lives in a folder: beside its database, and where this program remembers the labs that it opened. */
export function markLab(folder: string, marker: Omit<Marker, "format">): void {
  writeDurably(markerFile(folder), JSON.stringify({ format: "steady-bead/lab", ...marker }, null, 2));
  try {
    const { labId, createdAt, openedAt, runs } = marker;
    const known: KnownLabs = {
      ...readJson<KnownLabs>(knownFile()),
      [folder]: { labId, createdAt, openedAt, runs },
    };
    mkdirSync(path.dirname(knownFile()), { recursive: true });
    writeDurably(knownFile(), JSON.stringify(known, null, 2));
  } catch (error) {
    console.warn(
      `${knownFile()} cannot be written: a lab whose folder is suddenly empty would not be noticed.`,
      error,
    );
  }
}

/** Notes that a lab is open, before anything in it is touched. */
export const markOpen = (folder: string, boot: string): void => remark(folder, { open: boot });

/** Notes that a lab is closed, where it could not be opened. */
export const markClosed = (folder: string): void => remark(folder, { open: undefined });

function remark(folder: string, parts: Pick<Marker, "open"> | { open: undefined }): void {
  writeDurably(
    markerFile(folder),
    JSON.stringify({ ...markerIn(folder), format: "steady-bead/lab", ...parts }, null, 2),
  );
}

/** Puts a database that was made whole in its place; what an interrupted start left is cleared away before. */
export const beginUnfinished = (folder: string): void =>
  rmSync(unfinishedFolder(folder), { recursive: true, force: true });

export function finishUnfinished(folder: string): void {
  rmSync(databaseFolder(folder), { recursive: true, force: true });
  renameSync(unfinishedFolder(folder), databaseFolder(folder));
}

/** Writes a file that only this user can read, as that with a token must be. */
export const writePrivately = (file: string, text: string): void =>
  writeFileSync(file, text, { mode: 0o600, flag: "w" });
