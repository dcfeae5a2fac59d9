import { analyze } from "../database/analyze";
import { journalOf } from "../journal/recorded";
import { database } from "../lab/current";

/** After so many changes the tables are counted anew, looked at so often. */
const [changes, everyMs] = [2000, 60_000];

/** Keeps what the database knows of its tables true while a lab grows. Gives what ends that. */
export function keepStatistics(): () => void {
  // When the lab was opened they were counted.
  let counted: number | null = null;
  const once = async () => {
    const db = await database();
    const seq = journalOf(db)?.head.seq ?? 0;
    counted ??= seq;
    // A journal that was begun anew counts from the start.
    if (seq >= counted && seq - counted < changes) return;
    counted = seq;
    await analyze(db);
  };
  const again = setInterval(() => void once().catch((error: unknown) => console.error(error)), everyMs);
  return () => clearInterval(again);
}
