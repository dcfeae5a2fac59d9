import { eq } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { contradictions } from "../../core/rules";
import type { RunRequest } from "../../protocol/requests";
import { houseRules, run } from "../database/schema";
import type { Connection } from "../database/types";
import { type Change, done, type Outcome, refused, remember } from "./change";

export async function setRules(db: Connection, runId: string, houseRulesId: string): Promise<void> {
  await db.update(run).set({ houseRulesId }).where(eq(run.id, runId));
}

/** House rules for one run alone; those it had are kept, and undo brings them back. */
export async function setRulesOf(
  change: Change,
  { rules, reason }: Extract<RunRequest, { intent: "rules" }>,
): Promise<Outcome> {
  const { db, record, now } = change;
  const [wrong] = contradictions(rules);
  if (wrong) return refused(wrong.message);
  const [before] = await db.select({ id: run.houseRulesId }).from(run).where(eq(run.id, record.id));
  if (!before) return { status: "missing", message: "There is no such run" };
  const id = newId();
  await db.insert(houseRules).values({ id, createdAt: now, data: rules, runId: record.id });
  await setRules(db, record.id, id);
  await remember(
    change,
    "house rules for this run",
    { do: "rules", houseRulesId: before.id },
    { why: reason },
  );
  return done;
}
