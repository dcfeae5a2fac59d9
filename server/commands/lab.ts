import { Bug } from "../../core/result";
import { lab, runEvent, labEvent } from "../database/schema";
import type { Connection } from "../database/types";
import { max, sql } from "drizzle-orm";
import type { TrailSubject } from "../../formats/trail";
import type { ChangeDetail } from "../../core/change";
import { v7 as newId } from "uuid";

export type LabEntry = typeof lab.$inferSelect;

/** The lab of this database, named now where it never was. */
export async function labOf(db: Connection, fresh: string, now = new Date()): Promise<LabEntry> {
  const [there] = await db.select().from(lab).limit(1);
  if (there) return there;
  const [last] = await db.select({ at: max(runEvent.at) }).from(runEvent);
  const clockHigh = last?.at ?? new Date(0);
  const [made] = await db.insert(lab).values({ id: fresh, createdAt: now, clockHigh }).returning();
  if (!made) throw new Bug("The lab was not written");
  return made;
}

/** Remembers how far this server's clock had come when something was saved. */
export const clockSeen = (db: Connection, now: Date): Promise<unknown> =>
  db.update(lab).set({ clockHigh: sql`greatest(${lab.clockHigh}, ${now.toISOString()}::timestamptz)` });

/** From now on the clock counts as right. */
export const clockSetRight = (db: Connection, now: Date): Promise<unknown> =>
  db.update(lab).set({ clockHigh: now });

export interface LabDeed {
  readonly about: TrailSubject;
  readonly subjectId?: string | null;
  readonly subject: string;
  readonly person: string;
  readonly description: string;
  readonly detail?: ChangeDetail | null;
  readonly from?: string | null;
}

/** Writes down what was done that belongs to no run. */
export async function rememberDeed(db: Connection, deed: LabDeed, now = new Date()): Promise<void> {
  const { about, subjectId = null, subject, person, description, detail = null, from = null } = deed;
  await db.insert(labEvent).values({
    id: newId(),
    at: now,
    about,
    subjectId,
    subject,
    person,
    description,
    detail,
    receivedFrom: from,
  });
  await clockSeen(db, now);
}
