import { lab, labEvent } from "../database/schema";
import type { DatabaseConnection, Transacting } from "../database/types";
import type { TrailSubject } from "../../formats/trail";
import type { ChangeDetail } from "../../core/change";
import type { Mark } from "../journal/segments";
import { recorded } from "../journal/recorded";
import { labSeen, newId } from "../journal/under-way";

export type LabEntry = typeof lab.$inferSelect;

/** The lab of this database; null where it has none yet. */
export async function labOf(db: DatabaseConnection): Promise<LabEntry | null> {
  const [there] = await db.select().from(lab).limit(1);
  return there ?? null;
}

/** Remembers how far this server's clock had come when something was saved. */
export const clockSeen = (db: DatabaseConnection, now: Date): Promise<unknown> =>
  db.update(lab).set(labSeen(now));

/** From now on the clock counts as right. */
export const setClockRight = (db: Transacting, person: string, from: string | null, now: Date) =>
  recorded(db, "clock", { person, from }, now, async (tx) => {
    await tx.update(lab).set({ ...labSeen(now), clockHigh: now });
    const deed = { about: "clock", subject: "Clock", person, from } as const;
    await writeDeed(tx, { ...deed, description: "clock counts as right from now on" }, now);
  });

/** From now on this stands at the head of each report. */
export const saveLetterhead = (
  db: Transacting,
  { text, person }: { readonly text: string; readonly person: string },
  from: string | null,
  now: Date,
) =>
  recorded(db, "letterhead", { text, person, from }, now, async (tx) => {
    await tx.update(lab).set({ ...labSeen(now), letterhead: text });
    const detail = { to: text.replaceAll("\n", ", ") };
    const deed = { about: "report header", subject: "Report header", person, from, detail } as const;
    await writeDeed(tx, { ...deed, description: text === "" ? "taken away" : "changed" }, now);
  });

export interface LabDeed {
  readonly about: TrailSubject;
  readonly subjectId?: string | null;
  readonly subject: string;
  readonly person: string;
  readonly description: string;
  readonly detail?: ChangeDetail | null;
  readonly from?: string | null;
  /** The head of the journal's chain, where the deed tells it. */
  readonly chain?: Mark;
}

/** Writes down what was done that belongs to no run. */
export async function rememberDeed(db: DatabaseConnection, deed: LabDeed, now = new Date()): Promise<void> {
  await writeDeed(db, deed, now);
  await clockSeen(db, now);
}

/** The same as a command of its own. */
export const recordDeed = (db: Transacting, deed: LabDeed, now = new Date()): Promise<void> =>
  recorded(db, "deed", deed, now, (tx) => rememberDeed(tx, deed, now));

async function writeDeed(db: DatabaseConnection, deed: LabDeed, now: Date): Promise<void> {
  const {
    about,
    subjectId = null,
    subject,
    person,
    description,
    detail = null,
    from = null,
    chain = null,
  } = deed;
  await db.insert(labEvent).values({
    id: newId(),
    at: now,
    about,
    subjectId,
    subject,
    person,
    description,
    detail,
    chain,
    receivedFrom: from,
  });
}
