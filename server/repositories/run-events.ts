import { and, desc, eq, sql } from "drizzle-orm";
import type { RunState } from "../../protocol/answers";
import { runEvent } from "../database/schema";
import type { Connection } from "../database/types";

/** The last change that has not been taken back yet. */
export async function lastChange(db: Connection, runId: string) {
  const [event] = await db
    .select()
    .from(runEvent)
    .where(
      and(
        eq(runEvent.runId, runId),
        eq(runEvent.undone, false),
        // Time cannot be taken back: timers have buttons of their own.
        sql`${runEvent.inverse} ->> 'do' <> 'timer'`,
      ),
    )
    .orderBy(desc(runEvent.seq))
    .limit(1);
  return event ?? null;
}

/** The last change in words, as the run screen offers to take it back. */
export async function undoOffer(db: Connection, runId: string): Promise<RunState["undo"]> {
  const event = await lastChange(db, runId);
  return event && { eventId: event.id, description: event.description };
}
