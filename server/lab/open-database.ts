import { existsSync, mkdirSync } from "node:fs";
import path from "node:path";
import type { PGlite } from "@electric-sql/pglite";
import { v7 as newId } from "uuid";
import { methods } from "../../catalog/methods";
import { defaultHouseRules } from "../../catalog/rules/defaults";
import { countRows, essential, type Finding } from "../backup/check";
import { makeBackup } from "../backup/make";
import { forgetMethods } from "../queries/methods";
import { forgetRules } from "../queries/stored-run";
import { putMethods } from "../commands/methods";
import { putFirstHouseRules } from "../commands/house-rules";
import { type LabEntry, labOf } from "../commands/lab";
import {
  beginUnfinished,
  checkPostgresVersion,
  databaseFolder,
  finishUnfinished,
  holdsLab,
  LabFolderError,
  markLab,
  nameInMarker,
  unfinishedFolder,
  waysBack,
} from "./lab-folder";
import { lockFolder } from "./lock";
import { bringUpToDate, standingOf } from "../database/migrations";
import { connect, createClient, openClient } from "../database/connection";
import { emptyDatabase, putEmptyDatabase } from "../database/empty-database";
import { run } from "../database/schema";
import { noRoom, storageError } from "../database/storage";
import type { Database } from "../database/types";

export interface OpenDatabase {
  readonly client: PGlite;
  readonly db: Database;
  readonly lab: LabEntry;
  /** What was found damaged when it was opened; the rest can be used. */
  readonly findings: readonly Finding[];
  readonly close: () => Promise<void>;
}

/**
 * Opens the database in a folder, or one in memory without a folder (for tests): looks whether a whole lab stands there, takes the
 * folder for this process, makes a backup before migrations and applies them, and puts the catalog's methods and the default house
 * rules where they are missing. A folder that holds no lab, and never held one as far as is known, gets a new one.
 *
 * Throws a `LabFolderError` where a lab is there that cannot be opened, a `StorageError` where the folder cannot be written to, and
 * a `FolderInUseError` where another process has it; nothing is created or changed then.
 */
export async function openDatabase(folder: string | null): Promise<OpenDatabase> {
  if (folder === null)
    return openLab(await createClient(null, emptyDatabase()), null, () => Promise.resolve());
  const place = path.resolve(folder);
  let unlock = () => Promise.resolve();
  try {
    const there = holdsLab(place);
    unlock = await lockFolder(place);
    const full = noRoom(place);
    if (full) throw full;
    if (!there) await createDatabase(place);
    checkPostgresVersion(place);
    return await openLab(await opened(place), place, unlock);
  } catch (error) {
    await unlock().catch(() => undefined);
    throw storageError(error, place) ?? error;
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
    const said = error instanceof Error ? error.message : String(error);
    throw new LabFolderError(
      `The database in ${folder} is damaged: it cannot be opened (${said}). Its files are there (${databaseFolder(folder)}), and nothing ` +
        `was changed. ${waysBack(folder)}`,
      { cause: error },
    );
  }
}

async function openLab(
  client: PGlite,
  folder: string | null,
  unlock: () => Promise<void>,
): Promise<OpenDatabase> {
  const db = connect(client);
  try {
    // A lab from before labs had a name is called as the marker says, or gets a name now.
    const name = (folder === null ? null : nameInMarker(folder)) ?? newId();
    await migrated(client, db, folder, name);
    const { counts, findings } = await countRows(db);
    const [broken] = essential.filter((table) => counts[table] === undefined);
    if (broken !== undefined && folder !== null) {
      const said = findings.find(({ table }) => table === broken)?.message ?? broken;
      throw new LabFolderError(
        `The database in ${folder} is damaged. ${said}. Nothing was changed. ${waysBack(folder)}`,
      );
    }
    // No background worker does this in an embedded database: without it the planner knows nothing of the tables.
    await client
      .exec("analyze run, stage, trial, observation, run_event")
      .catch((error: unknown) => console.error("The tables cannot be analyzed:", (error as Error).message));
    forgetMethods();
    forgetRules();
    await putMethods(db, methods);
    await putFirstHouseRules(db, defaultHouseRules);
    const lab = await labOf(db, name);
    const mark = (runs: number) => {
      if (folder === null) return;
      const openedAt = new Date().toISOString();
      markLab(folder, { labId: lab.id, createdAt: lab.createdAt.toISOString(), openedAt, runs });
    };
    mark(counts.run ?? 0);
    const close = async () => {
      const now = await db.$count(run).catch(() => null);
      if (now !== null) mark(now);
      await client.close();
      await unlock();
    };
    return { client, db, lab, findings, close };
  } catch (error) {
    await client.close().catch(() => undefined);
    throw error;
  }
}

/** Brings the tables up to date, after a backup where there is something to lose. Refuses a database from a newer program. */
async function migrated(client: PGlite, db: Database, folder: string | null, name: string): Promise<void> {
  const standing = await standingOf(client).catch((error: unknown) => {
    if (folder === null) throw error;
    const said = error instanceof Error ? error.message : String(error);
    throw new LabFolderError(
      `The database in ${folder} is damaged: ${said}. Nothing was changed. ${waysBack(folder)}`,
      { cause: error },
    );
  });
  if (standing === "beyond") {
    throw new LabFolderError(
      `The lab in ${folder} was last used by a newer Steady Bead than this one, which does not know its tables. Start the newer program, ` +
        "or choose another folder with DATA_DIR. Nothing was changed.",
    );
  }
  if (standing === "behind" && folder !== null && existsSync(databaseFolder(folder))) {
    const id = await client
      .query<{ id: string }>("select id::text from lab limit 1")
      .then(({ rows }) => rows[0]?.id ?? name)
      .catch(() => name);
    await makeBackup({ client, db }, folder, id, "before a migration");
  }
  await bringUpToDate(db);
}
