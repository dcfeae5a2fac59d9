import { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import * as schema from "./schema";
import type { Database } from "./types";

/** Opens the database that stands in a folder. */
export const openClient = (folder: string): Promise<PGlite> => PGlite.create(folder);

/** Makes a database in a folder, or one in memory (for tests): from the prepared one, given as an archive, where there is one. */
export const createClient = (folder: string | null, prepared: Blob | null): Promise<PGlite> =>
  PGlite.create({
    dataDir: folder ?? "memory://",
    ...(prepared === null ? {} : { loadDataDir: prepared }),
  });

/** Drizzle on an open database. */
export const connect = (client: PGlite): Database => drizzle(client, { schema });
