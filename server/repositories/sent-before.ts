import type { Observation } from "../../core/record";
import type { RunRecord } from "../../core/run";
import type { AddTrace, Observe, StartTimer } from "../../protocol/requests";
import { conflict, done, type Outcome } from "./change";

/*
 * A request that is sent again, since its answer was lost, names the same id: it is answered as the first time. The same id
 * with other content is a fault, and is told.
 */

const inUse = conflict("This id is in use already, for something else");

type Sent = Pick<Observe, "id" | "symbol" | "kind" | "text"> & { readonly supersedes?: string | null };

/** What a reading that is sent now was answered before; null where it is new to this run. */
export function readingSentBefore(
  record: RunRecord,
  stageKey: string,
  trialId: string | null,
  sent: Sent,
): Outcome | null {
  for (const stage of record.stages) {
    const holders = [{ id: null as string | null, observations: stage.observations }, ...stage.trials];
    for (const holder of holders) {
      const there = holder.observations.find((o) => o.id === sent.id);
      if (!there) continue;
      const same = stage.key === stageKey && holder.id === trialId && says(there, sent);
      return same ? done : inUse;
    }
  }
  return null;
}

const says = (there: Observation, { symbol, kind, text, supersedes }: Sent): boolean =>
  there.symbol === symbol &&
  there.kind === kind &&
  there.text === text.trim() &&
  (supersedes === undefined || there.supersedes === supersedes);

/** The same for a spectrum or a course. */
export function traceSentBefore(record: RunRecord, sent: AddTrace): Outcome | null {
  const there = record.stages.flatMap((s) => s.traces ?? []).find((t) => t.id === sent.id);
  if (!there) return null;
  const equal = (a: readonly number[], b: readonly number[]) =>
    a.length === b.length && a.every((v, i) => v === b[i]);
  const same =
    there.trialId === sent.trialId &&
    there.xUnit === sent.xUnit &&
    equal(there.x, sent.x) &&
    equal(there.absorbance, sent.absorbance);
  return same ? done : inUse;
}

/** The same for a timer. */
export function timerSentBefore(record: RunRecord, sent: StartTimer): Outcome | null {
  for (const stage of record.stages) {
    const there = stage.timers?.find((t) => t.id === sent.id);
    if (!there) continue;
    const same =
      stage.key === sent.stageKey &&
      there.trialId === sent.trialId &&
      there.what === sent.what &&
      there.seconds === sent.seconds;
    return same ? done : inUse;
  }
  return null;
}
