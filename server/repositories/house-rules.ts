import { desc, isNull } from "drizzle-orm";
import { v7 as newId } from "uuid";
import type { HouseRules } from "../../core/run";
import type { Connection } from "../database/types";
import { houseRules } from "../database/schema";

export interface HouseRulesEntry {
  readonly id: string;
  readonly data: HouseRules;
}

/** The house rules in force: the newest. */
export async function currentHouseRules(db: Connection): Promise<HouseRulesEntry> {
  const [row] = await db
    .select()
    .from(houseRules)
    .where(isNull(houseRules.runId))
    .orderBy(desc(houseRules.seq))
    .limit(1);
  if (!row) throw new Error("There are no house rules in the database");
  return row;
}

/** New rules for runs that begin from now on; older runs keep theirs. */
export async function saveHouseRules(db: Connection, data: HouseRules, now = new Date()): Promise<void> {
  await db.insert(houseRules).values({ id: newId(), createdAt: now, data });
}

export async function putFirstHouseRules(db: Connection, data: HouseRules): Promise<void> {
  const rows = await db.select({ id: houseRules.id }).from(houseRules).limit(1);
  if (rows.length === 0) await saveHouseRules(db, data);
}
