import type { RunState, RunStep } from "~/protocol/answers";
import { afterStep, keptOf } from "~/protocol/step";

/** The run as a screen has it, and what is known of newer states. */
export interface ScreenState {
  readonly state: RunState;
  /** The latest revision that was heard of. */
  readonly heard: number;
  /** True where the server could not tell when it was asked. */
  readonly unsure: boolean;
}

export const takenFirst = (state: RunState): ScreenState => ({ state, heard: state.revision, unsure: false });

/** True where what is shown may be old, as after a step that does not follow on it: all has to be asked for. */
export const mayBeOld = ({ state, heard, unsure }: ScreenState): boolean => unsure || heard > state.revision;

/**
 * What a screen has after it was told a state, or a step to one: by the loader, by the answer to a change, by an event, in whatever
 * order they arrive. Of two states the one with more changes is the newer. The same object where nothing new was told.
 */
export function taken(now: ScreenState, told: RunState | RunStep | "unsure"): ScreenState {
  const { state, heard, unsure } = now;
  if (told === "unsure") return { ...now, unsure: true };
  if (!("patch" in told)) {
    if (told.revision <= state.revision) return unsure ? { ...now, unsure: false } : now;
    return {
      state: keptOf(state, told),
      heard: Math.max(heard, told.revision),
      unsure: false,
    };
  }
  if (told.from < state.revision) return now;
  const next = afterStep(state, told);
  return next
    ? { state: next, heard: Math.max(heard, next.revision), unsure }
    : { ...now, heard: Math.max(heard, told.from + 1) };
}
