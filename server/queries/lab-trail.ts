import { withUnit } from "../../core/quantity";
import type { TrailSubject, LabTrailLine } from "../../formats/trail";
import { sql, type SQL, eq, and, lt, desc } from "drizzle-orm";
import { runEvent, run, observation, labEvent } from "../database/schema";
import type { DatabaseConnection } from "../database/types";

/** What of the trail is asked for. */
export interface TrailQuery {
  readonly words: readonly string[];
  readonly about: TrailSubject | null;
  /** Lines older than this one, by its number. */
  readonly before: number | null;
  readonly limit: number;
}

/** The reading that a change wrote first, as its inverse names it. */
const written = sql`coalesce(${runEvent.inverse} ->> 'observationId', ${runEvent.inverse} -> 'of' -> 0 ->> 'observationId')::uuid`;

const escaped = (word: string) => `%${word.toLowerCase().replace(/[\\%_]/g, (c) => `\\${c}`)}%`;

const holds = (text: SQL, words: readonly string[]) =>
  words.map((word) => sql`lower(${text}) like ${escaped(word)}`);

async function ofRuns(db: DatabaseConnection, { words, before, limit }: TrailQuery): Promise<LabTrailLine[]> {
  const text = sql`concat_ws(' ', ${run.title}, ${runEvent.person}, ${observation.person}, ${runEvent.description}, ${runEvent.detail}::text, ${observation.reason})`;
  const rows = await db
    .select({ event: runEvent, title: run.title, reading: observation })
    .from(runEvent)
    .innerJoin(run, eq(run.id, runEvent.runId))
    .leftJoin(observation, eq(observation.id, written))
    .where(and(before === null ? undefined : lt(runEvent.seq, before), ...holds(text, words)))
    .orderBy(desc(runEvent.seq))
    .limit(limit);
  return rows.map(({ event, title, reading }): LabTrailLine => ({
    id: event.id,
    seq: event.seq,
    at: (reading?.at ?? event.at).toISOString(),
    received: event.at.toISOString(),
    receivedFrom: event.receivedFrom,
    about: "run",
    subjectId: event.runId,
    subject: title,
    person: reading?.person || event.person,
    what: event.phrase ?? event.description,
    where: null,
    from: event.detail?.from || null,
    to: event.detail?.to || (reading && reading.text !== "" ? withUnit(reading.text, reading.unit) : null),
    why: event.detail?.why || reading?.reason || null,
    undone: event.undone ? { at: event.undoneAt?.toISOString() ?? null, person: event.undoneBy ?? "" } : null,
  }));
}

async function ofLab(
  db: DatabaseConnection,
  { words, about, before, limit }: TrailQuery,
): Promise<LabTrailLine[]> {
  const text = sql`concat_ws(' ', ${labEvent.subject}, ${labEvent.person}, ${labEvent.description}, ${labEvent.detail}::text)`;
  const rows = await db
    .select()
    .from(labEvent)
    .where(
      and(
        before === null ? undefined : lt(labEvent.seq, before),
        about === null ? undefined : eq(labEvent.about, about),
        ...holds(text, words),
      ),
    )
    .orderBy(desc(labEvent.seq))
    .limit(limit);
  return rows.map((event): LabTrailLine => ({
    id: event.id,
    seq: event.seq,
    at: event.at.toISOString(),
    received: event.at.toISOString(),
    receivedFrom: event.receivedFrom,
    about: event.about,
    subjectId: event.subjectId,
    subject: event.subject,
    person: event.person,
    what: event.description,
    where: null,
    from: event.detail?.from || null,
    to: event.detail?.to || null,
    why: event.detail?.why || null,
    undone: null,
  }));
}

/** Everything that was ever done in a lab, the newest first, in the order in which it was written. */
export async function labTrail(db: DatabaseConnection, query: TrailQuery): Promise<LabTrailLine[]> {
  const runs = query.about === null || query.about === "run" ? await ofRuns(db, query) : [];
  return [...runs, ...(await ofLab(db, query))].sort((a, b) => b.seq - a.seq).slice(0, query.limit);
}
