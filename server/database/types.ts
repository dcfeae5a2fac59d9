import type { PgliteDatabase } from "drizzle-orm/pglite";
import type * as schema from "./schema";

export type Database = PgliteDatabase<typeof schema>;

/** A database or a transaction on it. */
export type DatabaseConnection = Pick<
  Database,
  "select" | "selectDistinctOn" | "insert" | "update" | "delete" | "execute" | "with" | "$with"
>;

/** A connection that can begin a transaction, within another one too. */
export type Transacting = DatabaseConnection & Pick<Database, "transaction">;
