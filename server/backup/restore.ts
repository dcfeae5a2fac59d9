import { endAllSessions } from "../access/access-file";
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync } from "node:fs";
import path from "node:path";
import { flush } from "../database/durable-file";
import { type OpenDatabase, openDatabase } from "../lab/open-database";
import { databaseFolder, LabFolderError } from "../lab/lab-folder";
import { lockFolder } from "../lab/lock";
import { unpack } from "../lab/recover";
import { Journal } from "../journal/journal";
import { journalFolder } from "../journal/segments";
import { recordDeed } from "../commands/lab";
import { countRows } from "./check";
import { type Backup, backupAt, listBackups, sha256Of } from "./files";
import { ask } from "./inspect";
import { makeBackup } from "./make";

/** A backup could not be restored, and the lab is as it was. Its message is for people. */
export class RestoreError extends Error {
  override readonly name = "RestoreError";
}

/** The backup that is meant by a path, a name, or "latest". Throws a `RestoreError` where there is none. */
export function chosenBackup(folder: string, which: string): Backup {
  const all = listBackups(folder);
  const found =
    which === "latest"
      ? all.find((b) => b.verified !== null)
      : (all.find((b) => b.name === which) ?? backupAt(path.resolve(which)));
  if (found) return found;
  throw new RestoreError(
    which === "latest"
      ? `No backup was found for ${folder}. Name one by its file.`
      : `${which} is no backup of Steady Bead, or its description (the .json beside it) is missing.`,
  );
}

/** Looks whether a backup is what it was when it was made, and opens it. */
async function sound(backup: Backup): Promise<void> {
  if (sha256Of(readFileSync(backup.file)) !== backup.sha256)
    throw new RestoreError(`${backup.name} is not what it was when it was made: its checksum differs.`);
  const report = await ask("verify", backup.file).catch((error: Error) => {
    throw new RestoreError(`${backup.name} cannot be opened: ${error.message}`);
  });
  const damaged = report.findings.find(({ kind }) => kind === "damaged");
  if (damaged) throw new RestoreError(`${backup.name} is damaged: ${damaged.message}`);
}

/** What was done with the lab that stood there. */
export type Replaced =
  | { readonly was: "empty" }
  /** It was backed up before. */
  | { readonly was: "lab"; readonly backup: Backup }
  /** It could not be opened, or parts of it could not be read: its files were put aside as they are. */
  | { readonly was: "damaged"; readonly keptIn: string };

/**
 * A backup of what stands in a folder. Its files are kept aside where it cannot be opened, or is damaged, so that no copy of it would be
 * sound. A lab that is whole and cannot be backed up is not touched.
 */
async function saveWhatStandsThere(folder: string): Promise<Replaced> {
  if (!existsSync(databaseFolder(folder))) return { was: "empty" };
  const aside = (): Replaced => {
    const now = new Date().toISOString().replace(/[:.]/g, "-");
    return { was: "damaged", keptIn: path.join(folder, `postgres.damaged-${now}`) };
  };
  let open: OpenDatabase;
  try {
    open = await openDatabase(folder);
  } catch (error) {
    if (error instanceof LabFolderError) return aside();
    throw error;
  }
  try {
    return { was: "lab", backup: await makeBackup(open, folder, open.lab.id, "before a restore") };
  } catch (error) {
    if ((await countRows(open.db)).findings.length > 0) return aside();
    throw error;
  } finally {
    await open.close();
  }
}

/**
 * Puts a backup in the place of a lab, or into an empty folder. What stands there is backed up first; where it cannot be opened its
 * files are kept aside. No server may have the folder open. Throws a `RestoreError` where the backup is not sound; nothing has been
 * changed then. A `BackupError` where what stands there cannot be backed up.
 */
export async function restoreLab(folder: string, backup: Backup, person = ""): Promise<Replaced> {
  await sound(backup);
  const replaced = await saveWhatStandsThere(folder);
  mkdirSync(folder, { recursive: true });
  const unlock = await lockFolder(folder);
  try {
    const fresh = path.join(folder, "postgres.restored");
    unpack(backup, fresh);
    const place = databaseFolder(folder);
    const before = replaced.was === "damaged" ? replaced.keptIn : path.join(folder, "postgres.before");
    if (existsSync(place)) {
      if (replaced.was !== "damaged") rmSync(before, { recursive: true, force: true });
      renameSync(place, before);
    }
    renameSync(fresh, place);
    await exchangeJournal(folder, backup, replaced);
    flush(folder);
    if (replaced.was !== "damaged") rmSync(before, { recursive: true, force: true });
  } finally {
    await unlock();
  }
  // Who was signed in when the backup was made is not signed in by it.
  endAllSessions(folder);
  const open = await openDatabase(folder);
  try {
    await recordDeed(open.db, {
      about: "backup",
      subject: "The lab",
      person,
      description: `lab restored from the backup of ${backup.at.slice(0, 16).replace("T", " ")} UTC`,
    });
  } finally {
    await open.close();
  }
  return replaced;
}

/** From now on a journal is kept that goes on from the backup: that of before leads to the lab that was replaced. */
async function exchangeJournal(folder: string, { name, sha256, labId, journal }: Backup, replaced: Replaced) {
  const place = journalFolder(folder);
  if (replaced.was === "damaged" && existsSync(place)) renameSync(place, `${replaced.keptIn}-journal`);
  rmSync(place, { recursive: true, force: true });
  await Journal.begin(folder, labId, { kind: "backup", name, sha256, held: journal ?? null }).close();
}

/** What was done, in words. */
export function replacedWords(replaced: Replaced): string {
  switch (replaced.was) {
    case "empty":
      return "Nothing stood there before.";
    case "lab":
      return `What stood there before was backed up: ${replaced.backup.name}.`;
    case "damaged":
      return `What stood there before was damaged; its files are kept in ${replaced.keptIn}.`;
  }
}
