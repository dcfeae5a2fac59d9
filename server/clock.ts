import { durationText } from "../core/timing";
import type { DatabaseConnection } from "./database/types";
import { lab } from "./database/schema";

/** Clocks that are put right by themselves move by less than this, s. */
const graceSeconds = 30;

/**
 * What is wrong with this computer's clock: it stands before the latest time at which anything was saved, so it was set back
 * meanwhile, and stays wrong until it has come that far again. Nothing is harmed by that, since rows are counted as they are
 * written; but times and timers are wrong. Null where all is well.
 */
export async function inspectClock(db: DatabaseConnection, now: Date): Promise<string | null> {
  const [last] = await db.select({ at: lab.clockHigh }).from(lab).limit(1);
  const back = last ? (last.at.getTime() - now.getTime()) / 1000 : 0;
  if (back <= graceSeconds) return null;
  return (
    `The clock of the computer that keeps the data stands ${durationText(back)} before the latest time that it has shown: ` +
    "it was set back, or wrong before. Readings are safe and in order, but set the clock right: times and timers go by it."
  );
}
