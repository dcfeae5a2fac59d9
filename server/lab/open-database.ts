import { existsSync, mkdirSync } from "node:fs";
import path from "node:path";
import type { PGlite } from "@electric-sql/pglite";
import { v7 as newId } from "uuid";
import { Bug } from "../../core/result";
import { methods } from "../../catalog/methods";
import { defaultHouseRules } from "../../catalog/rules/defaults";
import { countRows, essential, type Finding } from "../backup/check";
import type { Backup } from "../backup/files";
import { makeBackup } from "../backup/make";
import { forgetMethods } from "../queries/methods";
import { forgetRules } from "../queries/stored-run";
import { beginLab } from "../commands/begin-lab";
import { putMissingMethods } from "../commands/methods";
import { fillInLists } from "../commands/summary";
import { type LabEntry, labOf } from "../commands/lab";
import {
  beginUnfinished,
  checkPostgresVersion,
  databaseFolder,
  finishUnfinished,
  holdsLab,
  LabFolderError,
  markClosed,
  markLab,
  markOpen,
  nameInMarker,
  unfinishedFolder,
  waysBack,
} from "./lab-folder";
import { type HowOpened, keptJournal } from "./kept-journal";
import { lockFolder } from "./lock";
import { canRebuild, type LastStop, lastStop, rebuild, type Rebuilt, thisBoot } from "./recover";
import { analyze } from "../database/analyze";
import { bringUpToDate, standingOf } from "../database/migrations";
import { connect, createClient, openClient } from "../database/connection";
import { flushAll } from "../database/durable-file";
import { emptyDatabase, putEmptyDatabase } from "../database/empty-database";
import { run } from "../database/schema";
import { noRoom, storageError } from "../database/storage";
import type { Database } from "../database/types";
import type { Journal } from "../journal/journal";

export interface OpenDatabase {
  readonly client: PGlite;
  readonly db: Database;
  readonly lab: LabEntry;
  /** What was found damaged when it was opened; the rest can be used. */
  readonly findings: readonly Finding[];
  /** What had to be done to open it, in words: nothing where it was left as it should be. */
  readonly recovered: readonly string[];
  readonly openedAt: Date;
  readonly close: () => Promise<void>;
}

/**
 * Opens the database in a folder, or one in memory without a folder (for tests): looks whether a whole lab stands there, takes the
 * folder for this process, makes a backup before migrations and applies them, carries out what the journal holds beyond the database,
 * and puts the catalog's methods and the default house rules where they are missing. A folder that holds no lab, and never held one
 * as far as is known, gets a new one. After a power cut the database is put together anew from the newest backup and the journal.
 *
 * Throws a `LabFolderError` where a lab is there that cannot be opened, a `StorageError` where the folder cannot be written to, and
 * a `FolderInUseError` where another process has it; nothing is created or changed then.
 */
export async function openDatabase(folder: string | null): Promise<OpenDatabase> {
  if (folder === null)
    return openLab(await createClient(null, emptyDatabase()), null, () => Promise.resolve(), null);
  const place = path.resolve(folder);
  let unlock = () => Promise.resolve();
  try {
    const stop = lastStop(place);
    const there = standing(place, stop);
    unlock = await lockFolder(place);
    const full = noRoom(place);
    if (full) throw full;
    let rebuilt: Rebuilt | null = null;
    if (there === "none") await createDatabase(place);
    else if (stop === "cut" || there === "broken") rebuilt = await rebuild(place);
    checkPostgresVersion(place);
    markOpen(place, thisBoot());
    const open = async () =>
      openLab(await opened(place), place, unlock, { stop, rebuilt, fresh: there === "none" });
    try {
      return await open();
    } catch (error) {
      // It was closed, and was not opened now.
      if (stop === "closed") markClosed(place);
      if (!(error instanceof LabFolderError) || stop === "closed" || rebuilt) throw error;
      rebuilt = await rebuild(place);
      if (!rebuilt) throw error;
      return await open();
    }
  } catch (error) {
    await unlock().catch(() => undefined);
    throw storageError(error, place) ?? error;
  }
}

/** What stands in a folder. One that was not closed, and is not whole, counts as broken where it can be put together anew. */
function standing(folder: string, stop: LastStop): "none" | "whole" | "broken" {
  try {
    return holdsLab(folder) ? "whole" : "none";
  } catch (error) {
    if (stop !== "closed" && error instanceof LabFolderError && canRebuild(folder)) return "broken";
    throw error;
  }
}

/** Makes an empty database aside and puts it in its place once it is whole: a start that is cut short leaves none by halves. */
async function createDatabase(folder: string): Promise<void> {
  beginUnfinished(folder);
  mkdirSync(folder, { recursive: true });
  await putEmptyDatabase(unfinishedFolder(folder));
  finishUnfinished(folder);
}

async function opened(folder: string): Promise<PGlite> {
  try {
    return await openClient(databaseFolder(folder));
  } catch (error) {
    if (storageError(error, folder)) throw error;
    const message = error instanceof Error ? error.message : String(error);
    throw new LabFolderError(
      `The database in ${folder} is damaged: it cannot be opened (${message}). Its files are there (${databaseFolder(folder)}), and nothing ` +
        `was changed. ${waysBack(folder)}`,
      { cause: error },
    );
  }
}

async function openLab(
  client: PGlite,
  folder: string | null,
  unlock: () => Promise<void>,
  how: HowOpened | null,
): Promise<OpenDatabase> {
  const db = connect(client);
  let journal: Journal | null = null;
  try {
    // A lab from before labs had a name is called as the marker says, or gets a name now.
    const name = (folder === null ? null : nameInMarker(folder)) ?? newId();
    const backup = await migrated(client, db, folder, name);
    const { counts, findings } = await countRows(db);
    const [broken] = essential.filter((table) => counts[table] === undefined);
    if (broken !== undefined && folder !== null) {
      const damage = findings.find(({ table }) => table === broken)?.message ?? broken;
      throw new LabFolderError(
        `The database in ${folder} is damaged. ${damage}. Nothing was changed. ${waysBack(folder)}`,
      );
    }
    await analyze(db).catch((error: unknown) =>
      console.error("The tables cannot be analyzed:", (error as Error).message),
    );
    forgetMethods();
    forgetRules();
    const kept = folder === null || how === null ? null : await keptJournal(db, folder, name, backup, how);
    journal = kept?.journal ?? null;
    if (await labOf(db)) await putMissingMethods(db, methods);
    else await beginLab(db, { id: name, methods, rules: defaultHouseRules });
    await fillInLists(db);
    const lab = await labOf(db);
    if (!lab) throw new Bug("The lab was not written");
    const mark = (runs: number, closed: boolean) => {
      if (folder === null) return;
      const openedAt = new Date().toISOString();
      const begun = { labId: lab.id, createdAt: lab.createdAt.toISOString(), openedAt, runs };
      markLab(folder, closed ? begun : { ...begun, open: thisBoot() });
    };
    mark(counts.run ?? 0, false);
    const close = async () => {
      const now = await db.$count(run).catch(() => null);
      await client.close();
      await journal?.close();
      if (folder !== null) flushAll(databaseFolder(folder));
      if (now !== null) mark(now, true);
      await unlock();
    };
    return { client, db, lab, findings, recovered: kept?.messages ?? [], openedAt: new Date(), close };
  } catch (error) {
    await client.close().catch(() => undefined);
    await journal?.close().catch(() => undefined);
    throw error;
  }
}

/**
 * Brings the tables up to date, after a backup where there is something to lose; returns that. Refuses a database from a newer
 * program.
 */
async function migrated(
  client: PGlite,
  db: Database,
  folder: string | null,
  name: string,
): Promise<Backup | null> {
  const standing = await standingOf(client).catch((error: unknown) => {
    if (folder === null) throw error;
    const message = error instanceof Error ? error.message : String(error);
    throw new LabFolderError(
      `The database in ${folder} is damaged: ${message}. Nothing was changed. ${waysBack(folder)}`,
      { cause: error },
    );
  });
  if (standing === "beyond") {
    throw new LabFolderError(
      `The lab in ${folder} was last used by a newer Steady Bead than this one, which does not know its tables. Start the newer program, ` +
        "or choose another folder with DATA_DIR. Nothing was changed.",
    );
  }
  let backup: Backup | null = null;
  if (standing === "behind" && folder !== null && existsSync(databaseFolder(folder))) {
    const id = await client
      .query<{ id: string }>("select id::text from lab limit 1")
      .then(({ rows }) => rows[0]?.id ?? name)
      .catch(() => name);
    backup = await makeBackup({ client, db }, folder, id, "before a migration");
  }
  await bringUpToDate(db);
  return backup;
}
