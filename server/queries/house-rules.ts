import { Bug } from "../../core/result";
import type { HouseRules } from "../../core/rules";
import type { DatabaseConnection } from "../database/types";
import { houseRules } from "../database/schema";
import { isNull, desc } from "drizzle-orm";

export interface HouseRulesEntry {
  readonly id: string;
  readonly data: HouseRules;
}

/** The house rules in force: the newest. */
export async function currentHouseRules(db: DatabaseConnection): Promise<HouseRulesEntry> {
  const [row] = await db
    .select()
    .from(houseRules)
    .where(isNull(houseRules.runId))
    .orderBy(desc(houseRules.seq))
    .limit(1);
  if (!row) throw new Bug("There are no house rules in the database");
  return row;
}
