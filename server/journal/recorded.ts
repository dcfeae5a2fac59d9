import type { Database, Transacting } from "../database/types";
import { forgetRuns } from "../queries/stored-run";
import type { Journal } from "./journal";
import { carriedOut, commandUnderWay } from "./under-way";

const key = Symbol.for("steady-bead.journal");

/** The journal that the commands on a database go into; null where none is kept, as in memory. */
export const journalOf = (db: object): Journal | null => (db as { [key]?: Journal })[key] ?? null;

/** From now on the commands on a database go into this journal. */
export function keepJournal(db: Database, journal: Journal): void {
  (db as { [key]?: Journal })[key] = journal;
}

/**
 * Carries out a command in one transaction, and resolves once its line in the journal is on the disk. A command that throws, or
 * writes nothing, leaves no line. One within another is a part of that.
 */
export async function recorded<T>(
  db: Transacting,
  kind: string,
  data: unknown,
  now: Date,
  work: (tx: Transacting) => Promise<T>,
): Promise<T> {
  if (commandUnderWay()) return db.transaction(work);
  const done = await inJournal(db, kind, data, now, work);
  // A bottle's name and the like stand in runs, and no revision counts them.
  if (kind !== "run") forgetRuns();
  return done;
}

async function inJournal<T>(
  db: Transacting,
  kind: string,
  data: unknown,
  now: Date,
  work: (tx: Transacting) => Promise<T>,
): Promise<T> {
  const journal = journalOf(db);
  if (!journal) return carriedOut(null, () => db.transaction(work));
  const { replayed } = journal;
  if (replayed) return carriedOut(replayed, () => db.transaction(work));
  const [done, seq] = await journal.inTurn(async () => {
    const entry = journal.next(kind, data, now);
    let takeBack = () => undefined as void;
    try {
      return await carriedOut(entry.line, async (command) => {
        const result = await db.transaction(async (tx) => {
          const value = await work(tx);
          // The last thing before the commit: a line without its rows is replayed, rows without their line would be lost.
          if (command.wrote) takeBack = journal.append(entry);
          return value;
        });
        return [result, command.wrote ? entry.line.seq : 0] as const;
      });
    } catch (error) {
      takeBack();
      throw error;
    }
  });
  await journal.onDisk(seq);
  return done;
}
