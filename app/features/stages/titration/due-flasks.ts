import type { TimerRecord } from "~/core/record";
import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";

const isRunning = ({ startedAt, endedAt, counts }: TimerRecord): boolean =>
  startedAt !== null && endedAt === null && counts !== "persist";

/** When a running timer is over, ms since 1970. */
const overAt = ({ startedAt, seconds }: TimerRecord): number => Date.parse(startedAt ?? "") + 1000 * seconds;

/** Flasks that stand and are not titrated: those with a running timer, the first that is due first. */
export function standingFlasks(
  timers: readonly TimerRecord[],
  trials: readonly Pick<TrialEvaluation, "id" | "missing" | "record">[],
): string[] {
  const isOver = (id: string) =>
    trials.some((t) => t.id === id && (t.missing === null || t.record.struck !== null));
  const standing = timers
    .filter((t) => isRunning(t) && t.trialId !== null && !isOver(t.trialId))
    .toSorted((a, b) => overAt(a) - overAt(b));
  return [...new Set(standing.flatMap(({ trialId }) => trialId ?? []))];
}

/** The flask that is due next; null where none stands. */
export const nextDue = (...of: Parameters<typeof standingFlasks>): string | null =>
  standingFlasks(...of)[0] ?? null;

/** Flasks that are begun, or stand, and lack their end. */
export const flasksLeft = (
  timers: readonly TimerRecord[],
  { begun, trials }: Pick<TitrationEvaluation, "begun" | "trials">,
): number => new Set([...begun.map(({ id }) => id), ...standingFlasks(timers, trials)]).size;
