import { sql } from "drizzle-orm";
import type { DatabaseConnection } from "./types";

/**
 * Lets the database count its large tables anew, by which it decides how to look rows up: the embedded one has no helper that does so by
 * itself.
 */
export async function analyze(db: Pick<DatabaseConnection, "execute">): Promise<void> {
  await db.execute(sql`analyze run, stage, trial, observation, run_event`);
}
