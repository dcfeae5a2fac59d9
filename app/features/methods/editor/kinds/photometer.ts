import type { AssayStage } from "~/core/method";
import { Bug } from "~/core/result";
import type { EditedKind } from "./kind";

/** A stage that is read on a photometer: what belongs to its line or its course is carried through, and its texts are written here. */
function readOnAPhotometer<S extends AssayStage>(
  kind: S["kind"],
  words: string,
  gaps: (stage: S) => string[] = () => [],
): EditedKind<S> {
  return {
    words: `read on a photometer: ${words}`,
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
  "standards and their line",
  ({ strongest, series }) => [
    ...(strongest > 0 ? [] : ["say about what the strongest standard reads"]),
    ...(series.values.length < 2 ? ["a series needs two standards at least"] : []),
  ],
);

export const unknown = readOnAPhotometer<Extract<AssayStage, { kind: "unknown" }>>(
  "unknown",
  "an unknown read off a line",
);

export const rate = readOnAPhotometer<Extract<AssayStage, { kind: "rate" }>>("rate", "absorbance in time");
