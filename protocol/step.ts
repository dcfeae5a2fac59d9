import jsonPatch from "fast-json-patch";
import { immutableJSONPatch, type JSONPatchDocument } from "immutable-json-patch";
import type { RunState, RunStep } from "./answers";

/*
 * A change of a run is told as what it made other (JSON Patch, RFC 6902), not as the whole run again: a run with courses is
 * megabytes. What did not change stays the same object on both sides, so that what was computed from it is remembered.
 */

/** What made one state of a run into the next. Costs as much as was changed, where the rest is the same objects. */
export const stepBetween = (before: RunState, after: RunState): RunStep => ({
  from: before.revision,
  patch: jsonPatch.compare(before, after),
});

/** The state after a step; null where the step does not follow on it. */
export function afterStep(now: RunState, { from, patch }: RunStep): RunState | null {
  if (from !== now.revision) return null;
  try {
    return immutableJSONPatch<RunState, RunState>(now, patch as JSONPatchDocument);
  } catch {
    return null;
  }
}

/** A state that was told whole, with what is as it was kept as the objects that are there. */
export function keptOf(now: RunState, next: RunState): RunState {
  return afterStep(now, stepBetween(now, next)) ?? next;
}
