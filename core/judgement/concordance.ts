/** One replicate: who it is and the number that must agree with the others'. */
export interface Replicate {
  readonly id: string;
  readonly value: number;
}

/** When a set of replicates agrees. Widths are in the unit of the values; a relative range is a part of the mean. */
export type Concordance =
  | { readonly rule: "range"; readonly width: number }
  | { readonly rule: "from-mean"; readonly width: number }
  | { readonly rule: "identical" }
  | { readonly rule: "relative-range"; readonly part: number };

export interface ConcordantSet {
  /** Ids of the members, in rising order of their values. */
  readonly members: readonly string[];
  readonly low: number;
  readonly high: number;
  readonly mean: number;
  /** True when another set of the same size is just as tight. */
  readonly tied: boolean;
}

/** Readings are decimal: differences that are equal on paper may not differ by binary dust. */
const dust = 1e-9;

/** Whether values with this lowest, highest and mean agree. */
function agrees(concordance: Concordance, low: number, high: number, mean: number): boolean {
  switch (concordance.rule) {
    case "range":
      return high - low <= concordance.width + dust;
    case "from-mean":
      return Math.max(high - mean, mean - low) <= concordance.width + dust;
    case "identical":
      return high - low <= dust;
    case "relative-range":
      return high - low <= concordance.part * Math.abs(mean) + dust;
  }
}

/**
 * The best concordant set: the largest set of replicates that agrees by the rule, the tightest of them where several are as
 * large. No value that lies between two members is left out. Null when there is no replicate at all. The order of the
 * replicates does not matter.
 */
export function bestConcordantSet(
  replicates: readonly Replicate[],
  concordance: Concordance,
): ConcordantSet | null {
  const sorted = [...replicates].sort((a, b) => a.value - b.value || (a.id < b.id ? -1 : 1));
  const sums = sorted.reduce<number[]>((s, { value }) => [...s, (s.at(-1) ?? 0) + value], [0]);
  const at = (i: number) => sorted[i]?.value ?? NaN;
  const meanOf = (from: number, to: number) =>
    ((sums[to + 1] ?? NaN) - (sums[from] ?? NaN)) / (to - from + 1);
  let best: { from: number; to: number; spread: number } | null = null;
  let tied = false;
  for (let size = sorted.length; size > 0 && !best; size--) {
    for (let from = 0; from + size <= sorted.length; from++) {
      const to = from + size - 1;
      if (size > 1 && !agrees(concordance, at(from), at(to), meanOf(from, to))) continue;
      const spread = at(to) - at(from);
      const before: number = best ? (best as { spread: number }).spread : Infinity;
      if (spread < before - dust) {
        best = { from, to, spread };
        tied = false;
      } else if (Math.abs(spread - before) <= dust) {
        tied = true;
      }
    }
  }
  if (!best) return null;
  const { from, to } = best;
  return {
    members: sorted.slice(from, to + 1).map(({ id }) => id),
    low: at(from),
    high: at(to),
    mean: meanOf(from, to),
    tied,
  };
}

/** Where one more value would have to lie for the set to agree with it included. */
export function joiningWindow(
  { low, high, mean, members }: Pick<ConcordantSet, "low" | "high" | "mean" | "members">,
  concordance: Concordance,
): readonly [number, number] {
  const n = members.length;
  const sum = n * mean;
  switch (concordance.rule) {
    case "range":
      return [high - concordance.width, low + concordance.width];
    case "identical":
      return [high, low];
    case "from-mean": {
      // Each member, and the new value x itself, must stay within w of (sum + x) / (n + 1).
      const w = concordance.width;
      return [
        Math.max((sum - w * (n + 1)) / n, (high - w) * (n + 1) - sum),
        Math.min((sum + w * (n + 1)) / n, (low + w) * (n + 1) - sum),
      ];
    }
    case "relative-range": {
      // high - x ≤ p (sum + x) / (n + 1) below the set, x - low ≤ p (sum + x) / (n + 1) above it.
      const p = concordance.part / (n + 1);
      return [(high - p * sum) / (1 + p), (low + p * sum) / (1 - p)];
    }
  }
}
