import { and, desc, eq, isNotNull } from "drizzle-orm";
import { labEvent } from "../database/schema";
import type { Database } from "../database/types";
import { labOf } from "../commands/lab";
import { type Head } from "./line";
import { type Fault, readJournal, type StoredJournal } from "./segments";

/** Something that is wrong with a journal, in words. */
export interface JournalFinding {
  readonly kind: "damaged" | "broken";
  readonly message: string;
  readonly advice: string;
}

/** The rows of the database are as they are: what is lost is the way back by the journal. */
const advice =
  "The lab's data are not affected. Keep a copy of the journal folder for whoever looks into it, and back up now: the lab can be " +
  "rebuilt from the new backup.";

const faultWords = ({ seq, what }: Fault): string =>
  what === "altered"
    ? `Line ${seq} of the journal is not what was written`
    : `A line of the journal was taken out or put in before line ${seq}`;

/** The line of a journal with this number, or the head behind which it begins. */
const headAt = ({ after, segments }: StoredJournal, seq: number): Head | null =>
  after.seq === seq
    ? after
    : (segments.flatMap(({ lines }) => lines).find((line) => line.seq === seq) ?? null);

/**
 * Looks whether a lab's journal is the one that was written: each line by its own checksum and by that of the line before, its end
 * by what the database says, and earlier heads of the chain by what stands in the lab's trail. Changes nothing.
 */
export async function checkJournal(db: Database, folder: string): Promise<JournalFinding[]> {
  const there = await labOf(db);
  if (!there?.journal) return [];
  let stored: StoredJournal | null;
  try {
    stored = readJournal(folder);
  } catch (error) {
    return [{ kind: "damaged", message: `The journal cannot be read: ${(error as Error).message}`, advice }];
  }
  if (stored?.id !== there.journal)
    return [{ kind: "broken", message: "The journal of this lab is gone", advice }];
  const entries = await db
    .select({ chain: labEvent.chain })
    .from(labEvent)
    .where(and(eq(labEvent.about, "backup"), isNotNull(labEvent.chain)))
    .orderBy(desc(labEvent.seq))
    .limit(100);
  const own = { journal: there.journal, seq: there.journalSeq, check: there.journalCheck };
  const heads = [own, ...entries.flatMap(({ chain }) => chain ?? [])].filter(
    ({ journal, seq }) => journal === stored.id && seq >= stored.after.seq,
  );
  const wrong = heads.filter(({ seq, check }) => headAt(stored, seq)?.check !== check);
  const already = new Set(stored.faults.map(({ seq }) => seq));
  return [
    ...stored.faults.map((fault) => ({ kind: "broken" as const, message: faultWords(fault), advice })),
    ...wrong
      .filter(({ seq }) => !already.has(seq))
      .map(({ seq }) => ({
        kind: "broken" as const,
        message: `The journal at line ${seq} is another than the one that the ${seq === own.seq ? "database" : "lab's trail"} names`,
        advice,
      })),
  ];
}
