import {
  afterChanges,
  canWait as changeCanWait,
  dependsOn as changeDependsOn,
  isRunChange,
} from "~/core/change";
import { changeContext } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import type { RunRequest } from "./requests";

/** A change that is not on the server yet, and when it was made by this device's clock, ms since 1970. */
export interface WaitingChange {
  readonly request: RunRequest;
  readonly at: number;
}

/** Whether a request can wait until the server is reached. */
export const canWait = (request: RunRequest): boolean => isRunChange(request) && changeCanWait(request);

/** True where a request makes no sense without an earlier one. */
export const dependsOn = (later: RunRequest, earlier: RunRequest): boolean =>
  isRunChange(later) && isRunChange(earlier) && changeDependsOn(later, earlier);

/**
 * The record as it will be once what waits has reached the server: the same changes, applied here. The record itself is not
 * touched. `clockOffset`: how far the server's clock is ahead of this device's, ms.
 */
export function withWaiting(
  record: RunRecord,
  waiting: readonly WaitingChange[],
  clockOffset = 0,
): RunRecord {
  const changes = waiting.flatMap(({ request, at }) => (isRunChange(request) ? [{ request, at }] : []));
  return afterChanges(
    record,
    changes.map(({ request }) => request),
    (_change, i) =>
      changeContext({
        now: new Date((changes[i]?.at ?? 0) + clockOffset).toISOString(),
        person: record.bench,
        newId: (of) => of,
      }),
  );
}
