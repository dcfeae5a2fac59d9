import type { Transacting } from "../database/types";
import type { HouseRules } from "../../core/rules";
import type { ChangeDetail } from "../../core/change";
import { newId } from "../journal/under-way";
import { houseRules } from "../database/schema";
import type { By } from "./deed";
import { recorded } from "../journal/recorded";
import { rememberDeed } from "./lab";

/** New rules for runs that begin from now on; older runs keep theirs. `detail` says what they change, in words. */
export async function saveHouseRules(
  db: Transacting,
  data: HouseRules,
  by: By,
  detail: ChangeDetail = {},
  now = new Date(),
): Promise<void> {
  const { person, reason, from = null } = by;
  await recorded(db, "house-rules", { data, by, detail }, now, async (tx) => {
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
