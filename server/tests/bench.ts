import { v7 as newId } from "uuid";
import { mustHold } from "~/core/result";
import type { RunRequest } from "~/protocol/requests";
import type { Observe } from "~/core/change";
import type { OpenDatabase } from "../lab/open-database";
import { changeRun } from "../commands/change-run";
import { loadRunRecord } from "../queries/stored-run";
import { startRun } from "../commands/start-run";

/** A bench to test at: starts runs and changes them as the screens do, on a real database. */
export function benchOn(open: () => OpenDatabase) {
  const begin = async (title = "Rinse acid", now?: Date) =>
    mustHold(
      await startRun(
        open().db,
        { intent: "start", methodId: "base-by-phthalate-then-acid", title, sample: "R-1", bench: "bench 1" },
        now,
      ),
    );
  const change = (runId: string, request: RunRequest) => changeRun(open().db, runId, request);
  const record = async (runId: string) => {
    const found = await loadRunRecord(open().db, runId);
    if (!found) throw new Error("run missing");
    return found;
  };
  return { begin, change, record };
}

/** A request to write one reading of the first stage. */
export const reading = (
  trialId: string,
  symbol: string,
  kind: Observe["kind"],
  text: string,
  more: Partial<Observe> = {},
) =>
  ({
    intent: "observe",
    id: newId(),
    stageKey: "standardize",
    trial: { id: trialId, kind: "fine" },
    symbol,
    kind,
    text,
    supersedes: null,
    reason: null,
    ...more,
  }) satisfies Observe;

/** A whole weighed flask, reading by reading. */
export const wholeFlask = (
  trialId: string,
  after: string,
  final: string,
  kind: "rough" | "fine" = "fine",
) => {
  const more = { trial: { id: trialId, kind } };
  return [
    reading(trialId, "m", "mass.before", "2.6106", more),
    reading(trialId, "m", "mass.after", after, more),
    reading(trialId, "V", "burette.initial", "0.00", more),
    reading(trialId, "V", "burette.final", final, more),
  ];
};
