import type { Transacting, Connection } from "../database/types";
import type { HouseRules } from "../../core/rules";
import type { ChangeDetail } from "../../core/change";
import { v7 as newId } from "uuid";
import { houseRules } from "../database/schema";
import { rememberDeed } from "./lab";

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
