import { desc, isNull } from "drizzle-orm";
import { v7 as newId } from "uuid";
import type { HouseRules } from "../../core/rules";
import type { ChangeDetail } from "../database/stored";
import type { Connection, Transacting } from "../database/types";
import { houseRules } from "../database/schema";
import { rememberDeed } from "./lab";

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

/** New rules for runs that begin from now on; older runs keep theirs. `detail` says what they change, in words. */
export async function saveHouseRules(
  db: Transacting,
  data: HouseRules,
  { person, reason, from = null }: { person: string; reason: string; from?: string | null },
  detail: ChangeDetail = {},
  now = new Date(),
): Promise<void> {
  await db.transaction(async (tx) => {
    const id = newId();
    await tx.insert(houseRules).values({ id, createdAt: now, data, person, reason });
    const deed = { about: "house rules", subjectId: id, subject: "House rules", person, from } as const;
    await rememberDeed(
      tx,
      { ...deed, description: "house rules changed", detail: { ...detail, why: reason } },
      now,
    );
  });
}

export async function putFirstHouseRules(db: Connection, data: HouseRules): Promise<void> {
  const rows = await db.select({ id: houseRules.id }).from(houseRules).limit(1);
  if (rows.length === 0) await db.insert(houseRules).values({ id: newId(), createdAt: new Date(), data });
}
