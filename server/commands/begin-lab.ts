import { max } from "drizzle-orm";
import type { Method } from "../../core/method";
import type { HouseRules } from "../../core/rules";
import { houseRules, lab, runEvent } from "../database/schema";
import type { Transacting } from "../database/types";
import { journalOf, recorded } from "../journal/recorded";
import { newId } from "../journal/under-way";
import { clockSeen, labOf } from "./lab";
import { putMethods } from "./methods";

/** What a new lab begins with. */
export interface Beginning {
  readonly id: string;
  readonly methods: readonly Method[];
  readonly rules: HouseRules;
}

/** Names the lab of a database where it has no name yet, and puts the library and the first house rules where they are missing. */
export async function beginLab(db: Transacting, beginning: Beginning, now = new Date()): Promise<void> {
  const { id, methods, rules } = beginning;
  const journal = journalOf(db)?.id ?? null;
  await recorded(db, "begin", beginning, now, async (tx) => {
    if (await labOf(tx)) return;
    const [last] = await tx.select({ at: max(runEvent.at) }).from(runEvent);
    await tx.insert(lab).values({ id, createdAt: now, clockHigh: last?.at ?? new Date(0), journal });
    await clockSeen(tx, now);
    await putMethods(tx, methods);
    await putFirstHouseRules(tx, rules, now);
  });
}

export async function putFirstHouseRules(
  db: Pick<Transacting, "select" | "insert">,
  data: HouseRules,
  now = new Date(),
): Promise<void> {
  const rows = await db.select({ id: houseRules.id }).from(houseRules).limit(1);
  if (rows.length === 0) await db.insert(houseRules).values({ id: newId(), createdAt: now, data });
}
