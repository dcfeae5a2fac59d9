import type { AssayStage } from "~/core/method";
import { Bug } from "~/core/result";
import type { EditedKind } from "./kind";
import { msg, type Phrase } from "~/core/text";

/** A stage that is read on a photometer: what belongs to its line or its course is carried through, and its texts are written here. */
function readOnAPhotometer<S extends AssayStage>(
  kind: S["kind"],
  words: Phrase,
  gaps: (stage: S) => Phrase[] = () => [],
): EditedKind<S> {
  return {
    words: msg`read on a photometer: ${words}`,
    starter: null,
    draft: (stage) => ({ carried: stage }),
    stage: ({ carried }, shared) => {
      if (carried?.kind !== kind) throw new Bug(`Written without one at first: ${kind}`);
      return { ...(carried as S), ...shared };
    },
    gaps,
    presumed: () => null,
  };
}

export const calibration = readOnAPhotometer<Extract<AssayStage, { kind: "calibration" }>>(
  "calibration",
  msg`standards and their line`,
  ({ strongest, series }) => [
    ...(strongest > 0 ? [] : [msg`say about what the strongest standard reads`]),
    ...(series.values.length < 2 ? [msg`a series needs two standards at least`] : []),
  ],
);

export const unknown = readOnAPhotometer<Extract<AssayStage, { kind: "unknown" }>>(
  "unknown",
  msg`an unknown read off a line`,
);

export const rate = readOnAPhotometer<Extract<AssayStage, { kind: "rate" }>>("rate", msg`absorbance in time`);
