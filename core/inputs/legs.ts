import type { Check } from "../measure";
import type { ObservationKind } from "../record";
import type { Read, Typed } from "./kind";
import { stopped } from "./pair";
import { msg } from "../text";

/* A burette that was refilled in the middle of a titration is read in two legs. */

/** What a leg is read from: its start and its end. */
export interface Leg {
  readonly initial: ObservationKind;
  readonly final: ObservationKind;
}

const whole: Leg = { initial: "burette.initial", final: "burette.final" };
const beforeRefill: Leg = { initial: "burette.initial", final: "burette.before-refill" };
const afterRefill: Leg = { initial: "burette.after-refill", final: "burette.final" };

/** The legs of a titration, by what has been read: one, or two once a refill is begun. */
export const legsOf = (isRead: (kind: ObservationKind) => boolean): readonly Leg[] =>
  isRead("burette.before-refill") || isRead("burette.after-refill") ? [beforeRefill, afterRefill] : [whole];

/** Readings by leg: the initial and the final one of each. */
export function inLegs(read: (kind: ObservationKind) => number | null): Read {
  const legs = legsOf((kind) => read(kind) !== null);
  const ofLeg = (kind: ObservationKind, leg = 1): number | null => {
    const end = kind === "burette.initial" ? "initial" : kind === "burette.final" ? "final" : null;
    return read(end ? (legs[leg - 1]?.[end] ?? kind) : kind);
  };
  return Object.assign(ofLeg, { legs: legs.length });
}

/** The reading with those of its own leg beside it, called as those of a burette that was not refilled. */
export function ofItsLeg(typed: Typed): Typed {
  const { kind, beside } = typed;
  const [first, second] = legsOf((of) => of === kind || beside(of) !== null);
  if (!first || !second) return typed;
  const leg = kind === first.initial || kind === first.final ? first : second;
  return {
    ...typed,
    kind: kind === leg.initial ? whole.initial : kind === leg.final ? whole.final : kind,
    beside: (of) => beside(of === whole.initial ? leg.initial : of === whole.final ? leg.final : of),
  };
}

/** A burette that was refilled stands higher than before. */
export function refillChecks({ kind, value, text, decimals, beside }: Typed): Check[] {
  const there = (of: ObservationKind) => (of === kind ? { value, text } : beside(of));
  const [before, after] = [there(beforeRefill.final), there(afterRefill.initial)];
  const isRefill = kind === beforeRefill.final || kind === afterRefill.initial;
  if (!isRefill || !before || !after || after.value < before.value) return [];
  return [
    stopped(
      msg`After a refill the burette reads less than before: ${after.value.toFixed(decimals)} is not below ${before.value.toFixed(decimals)}. Was it refilled?`,
      "order",
    ),
  ];
}
