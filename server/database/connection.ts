import path from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import { methods } from "../../catalog/methods";
import { defaultHouseRules } from "../../catalog/rules/defaults";
import { putMethods } from "../repositories/methods";
import { putFirstHouseRules } from "../repositories/house-rules";
import { lockFolder } from "./lock";
import * as schema from "./schema";
import { noRoom, storageError } from "./storage";
import type { Database } from "./types";

export interface OpenDatabase {
  readonly db: Database;
  readonly close: () => Promise<void>;
}

const migrationsFolder = () => path.resolve("server/migrations");

/**
 * Opens the database in a folder, or one in memory without a folder (for tests): takes the folder for this process,
 * applies migrations, and puts the catalog's methods and the default house rules where they are missing. Throws a
 * `StorageError` where the folder cannot be written to, and a `FolderInUseError` where another process has it.
 */
export async function openDatabase(folder: string | null): Promise<OpenDatabase> {
  if (folder === null) return openOn("memory://", () => Promise.resolve());
  let unlock = () => Promise.resolve();
  try {
    unlock = await lockFolder(folder);
    const full = noRoom(folder);
    if (full) throw full;
    return await openOn(path.join(folder, "postgres"), unlock);
  } catch (error) {
    await unlock().catch(() => undefined);
    throw storageError(error, folder) ?? error;
  }
}

async function openOn(place: string, unlock: () => Promise<void>): Promise<OpenDatabase> {
  const client = await PGlite.create(place);
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder: migrationsFolder() });
  // No background worker does this in an embedded database: without it the planner knows nothing of the tables.
  await client.exec("analyze run, stage, trial, observation, run_event");
  await putMethods(db, methods);
  await putFirstHouseRules(db, defaultHouseRules);
  return {
    db,
    close: async () => {
      await client.close();
      await unlock();
    },
  };
}
