import type { RunState, RunStep } from "~/protocol/answers";
import { afterStep, keptOf } from "~/protocol/step";

/** The run as a screen has it, and what is known of newer states. */
export interface ScreenState {
  readonly state: RunState;
  /** The latest revision that was heard of. */
  readonly latest: number;
  /** True where the server could not tell when it was asked. */
  readonly unsure: boolean;
}

export const takenFirst = (state: RunState): ScreenState => ({
  state,
  latest: state.revision,
  unsure: false,
});

/** True where what is shown may be old, as after a step that does not follow on it: all has to be asked for. */
export const mayBeOld = ({ state, latest: latest, unsure }: ScreenState): boolean =>
  unsure || latest > state.revision;

/**
 * What a screen has after it was told a state, or a step to one: by the loader, by the answer to a change, by an event, in whatever
 * order they arrive. Of two states the one with more changes is the newer. The same object where nothing new was told.
 */
export function taken(now: ScreenState, update: RunState | RunStep | "unsure"): ScreenState {
  const { state, latest: latest, unsure } = now;
  if (update === "unsure") return { ...now, unsure: true };
  if (!("patch" in update)) {
    if (update.revision <= state.revision) return unsure ? { ...now, unsure: false } : now;
    return {
      state: keptOf(state, update),
      latest: Math.max(latest, update.revision),
      unsure: false,
    };
  }
  if (update.from < state.revision) return now;
  const next = afterStep(state, update);
  return next
    ? { state: next, latest: Math.max(latest, next.revision), unsure }
    : { ...now, latest: Math.max(latest, update.from + 1) };
}
