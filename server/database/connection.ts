import path from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { drizzle, type PgliteDatabase } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import { methods } from "../../catalog/methods";
import { defaultHouseRules } from "../../catalog/rules/defaults";
import { putMethods } from "../repositories/methods";
import { putFirstHouseRules } from "../repositories/house-rules";
import { lockFolder } from "./lock";
import * as schema from "./schema";

export type Database = PgliteDatabase<typeof schema>;
/** A database or a transaction on it. */
export type Connection = Pick<Database, "select" | "selectDistinctOn" | "insert" | "update" | "delete">;

export interface OpenDatabase {
  readonly db: Database;
  close(): Promise<void>;
}

const migrationsFolder = () => path.resolve("server/migrations");

/**
 * Opens the database in a folder, or one in memory without a folder (for tests): takes the folder for this process,
 * applies migrations, and puts the catalog's methods and the default house rules where they are missing.
 */
export async function openDatabase(folder: string | null): Promise<OpenDatabase> {
  const unlock = folder === null ? () => Promise.resolve() : await lockFolder(folder);
  try {
    const client = await PGlite.create(folder === null ? "memory://" : path.join(folder, "postgres"));
    const db = drizzle(client, { schema });
    await migrate(db, { migrationsFolder: migrationsFolder() });
    await putMethods(db, methods);
    await putFirstHouseRules(db, defaultHouseRules);
    return {
      db,
      close: async () => {
        await client.close();
        await unlock();
      },
    };
  } catch (error) {
    await unlock();
    throw error;
  }
}
