/** One replicate: who it is and the number that must agree with the others'. */
export interface Replicate {
  readonly id: string;
  readonly value: number;
}

export interface ConcordantSet {
  /** Ids of the members, in rising order of their values. */
  readonly members: readonly string[];
  readonly low: number;
  readonly high: number;
  /** True when another set of the same size is just as tight. */
  readonly tied: boolean;
}

/** Readings are decimal: differences that are equal on paper may not differ by binary dust. */
const dust = 1e-9;

/**
 * The best concordant set: the largest set of replicates that lie within `width` of each other, the tightest of them
 * where several are as large. Null when there is no replicate at all. The order of the replicates does not matter.
 */
export function bestConcordantSet(replicates: readonly Replicate[], width: number): ConcordantSet | null {
  const sorted = [...replicates].sort((a, b) => a.value - b.value || (a.id < b.id ? -1 : 1));
  let best: { from: number; to: number; spread: number } | null = null;
  let tied = false;
  sorted.forEach((lowest, from) => {
    let to = from;
    while (to + 1 < sorted.length && (sorted[to + 1]?.value ?? NaN) - lowest.value <= width + dust) to++;
    const spread = (sorted[to]?.value ?? NaN) - lowest.value;
    const size = to - from;
    const bestSize = best ? best.to - best.from : -1;
    if (!best || size > bestSize || (size === bestSize && spread < best.spread - dust)) {
      best = { from, to, spread };
      tied = false;
    } else if (size === bestSize && Math.abs(spread - best.spread) <= dust) {
      tied = true;
    }
  });
  const found = best as { from: number; to: number } | null;
  if (!found) return null;
  const members = sorted.slice(found.from, found.to + 1);
  return {
    members: members.map(({ id }) => id),
    low: members[0]?.value ?? NaN,
    high: members.at(-1)?.value ?? NaN,
    tied,
  };
}

/** Where one more value would have to lie to join the set without widening it beyond `width`. */
export function joiningWindow(
  set: Pick<ConcordantSet, "low" | "high">,
  width: number,
): readonly [number, number] {
  return [set.high - width, set.low + width];
}
