import type { Check } from "../measure";
import type { ObservationKind } from "../record";
import type { Typed } from "./kind";
import { type Phrase } from "../text";

export const stopped = (message: Phrase, kind: NonNullable<Check["kind"]>): Check => ({
  severity: "stop",
  message,
  kind,
});

/** The two readings of a pair with the one that was just typed in its place; null while one is missing. */
export function pairOf(
  kinds: readonly [ObservationKind, ObservationKind],
  { kind: typed, value, beside }: Typed,
): [number, number] | null {
  if (!kinds.includes(typed)) return null;
  const [first, second] = kinds.map((kind) => (kind === typed ? value : (beside(kind)?.value ?? null)));
  return first == null || second == null ? null : [first, second];
}
