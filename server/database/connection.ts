import { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import * as schema from "./schema";
import type { Database } from "./types";

/** Opens the database in a folder, made there where there is none; or one in memory, for tests. */
export const openClient = (folder: string | null): Promise<PGlite> => PGlite.create(folder ?? "memory://");

/** Drizzle on an open database. */
export const connect = (client: PGlite): Database => drizzle(client, { schema });
