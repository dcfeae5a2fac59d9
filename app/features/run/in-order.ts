import { v7 as newId } from "uuid";
import { applyChange, type RunChange } from "~/core/change";
import { changeContext } from "~/core/evaluate";
import { type ObservationKind, presentObservation } from "~/core/record";
import type { RunRecord } from "~/core/run";
import type { Phrase } from "~/core/text";
import { useRunInHand } from "../../entry/run-context";
import { serverNow } from "../../live/timers";
import { isTaken } from "../../live/post";

/* Several changes of a run that belong together: each is made on the run as the one before leaves it. */

/** One of them, by the run as it is then; null where nothing is to be changed. `at` is the field that it is about. */
export interface Step<At extends string> {
  readonly at: At;
  readonly change: (record: RunRecord) => RunChange | null;
}

/** What was not taken, by the field that it is about. */
export interface StepProblem<At extends string> {
  readonly at: At;
  readonly message: Phrase;
}

/** Where something is stated in a run. */
export interface StatedAt {
  readonly stageKey: string;
  readonly symbol: string;
}

export const statedNow = ({ stages }: RunRecord, { stageKey, symbol }: StatedAt, kind: ObservationKind) => {
  const there = stages.find(({ key }) => key === stageKey)?.observations ?? [];
  return presentObservation(there, symbol, kind);
};

/**
 * States a value, or its ±, in place of what stands there. A new value takes the ± of the old one with it, so that its own has to be
 * stated after it; a ± that was emptied is one of nothing.
 */
export function stating(
  { stageKey, symbol }: StatedAt,
  kind: "given" | "given.plus-minus",
  typed: string,
): (record: RunRecord) => RunChange | null {
  return (record) => {
    const standing = statedNow(record, { stageKey, symbol }, kind);
    const text = typed.trim() || (kind === "given.plus-minus" && standing ? "0" : "");
    if (text === "" || (standing?.text === text && standing.assignment == null)) return null;
    const [supersedes, reason] = [standing?.id ?? null, standing ? "restated" : null];
    return { intent: "observe", id: newId(), stageKey, trial: null, symbol, kind, text, supersedes, reason };
  };
}

/** The changes as they will be sent, or the first that cannot be made; what a bottle says is known to the server alone. */
function planned<At extends string>(
  record: RunRecord,
  steps: readonly Step<At>[],
): { readonly changes: readonly (readonly [At, RunChange])[] } | StepProblem<At> {
  const changes: [At, RunChange][] = [];
  const now = new Date(serverNow()).toISOString();
  const context = changeContext({ now, person: record.bench, newId: () => newId() });
  let so = record;
  for (const { at, change: changeOf } of steps) {
    const change = changeOf(so);
    if (!change) continue;
    changes.push([at, change]);
    if (change.intent === "take") continue;
    const applied = applyChange(so, change, context);
    if (!applied.ok) return { at, message: applied.problem.message };
    so = applied.value?.record ?? so;
  }
  return { changes };
}

/** Sends changes one after the other; none where one of them cannot be made. Resolves with what was not taken, null where all was. */
export function useInOrder() {
  const { record, send } = useRunInHand();
  return async <At extends string>(steps: readonly Step<At>[]): Promise<StepProblem<At> | null> => {
    const plan = planned(record, steps);
    if (!("changes" in plan)) return plan;
    for (const [at, change] of plan.changes) {
      const answer = await send(change);
      if (!isTaken(answer)) return { at, message: answer.message };
    }
    return null;
  };
}
