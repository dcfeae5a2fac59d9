import { mean } from "../statistics";

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
  /**
   * Members of the other sets that are as large and share no replicate with this one. While there is one, nothing tells which
   * of them is right.
   */
  readonly rivals: readonly (readonly string[])[];
  /** True when another set of the same size, that shares replicates with this one, is just as tight. */
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
  const runs: { from: number; to: number; spread: number }[] = [];
  for (let size = sorted.length; size > 0 && runs.length === 0; size--) {
    for (let from = 0; from + size <= sorted.length; from++) {
      const to = from + size - 1;
      if (size > 1 && !agrees(concordance, at(from), at(to), meanOf(from, to))) continue;
      runs.push({ from, to, spread: at(to) - at(from) });
    }
  }
  const best = runs.reduce<(typeof runs)[number] | null>(
    (found, run) => (found === null || run.spread < found.spread - dust ? run : found),
    null,
  );
  if (!best) return null;
  const { from, to, spread } = best;
  const apart = (run: (typeof runs)[number]) => run.from > to || run.to < from;
  const ids = (run: (typeof runs)[number]) => sorted.slice(run.from, run.to + 1).map(({ id }) => id);
  return {
    members: ids(best),
    low: at(from),
    high: at(to),
    mean: meanOf(from, to),
    rivals: runs.filter(apart).map(ids),
    tied: runs.some((run) => run !== best && !apart(run) && run.spread <= spread + dust),
  };
}

/** A window of values, ends included. */
export type Window = readonly [low: number, high: number];

/** Steps that are tried one by one at most: beyond it only a rule that lets nearly everything agree goes. */
const mostSteps = 20_000;

/**
 * All values, on a scale read in steps, that one more replicate may have so that a set of `size` agrees with it and has no
 * rival: as windows in rising order, empty where no single value does it. Which values come into question follows from the
 * rule solved for the new one in every run of neighbors; each step within is then held against the rule itself.
 */
export function decidingWindows(
  values: readonly number[],
  concordance: Concordance,
  size: number,
  step: number,
): Window[] {
  const sorted = [...values].sort((a, b) => a - b);
  const candidates: Window[] = [];
  for (let from = 0; from < sorted.length; from++) {
    for (let to = Math.max(from, from + size - 2); to < sorted.length; to++) {
      const members = sorted.slice(from, to + 1);
      const [low, high] = [members[0] ?? NaN, members.at(-1) ?? NaN];
      const window = joiningWindow(
        { low, high, mean: mean(members), members: members.map(String) },
        concordance,
      );
      // A value between two members is never left out, so none lies beyond the neighbors of the run.
      const least = Math.max(window[0], sorted[from - 1] ?? -Infinity);
      const most = Math.min(window[1], sorted[to + 1] ?? Infinity);
      if (least <= most + dust) candidates.push([least, most]);
    }
  }
  const steps = new Set<number>();
  for (const [low, high] of candidates) {
    const [first, last] = [Math.ceil(low / step - 1e-6), Math.floor(high / step + 1e-6)];
    for (let i = Math.max(0, first); i <= last && steps.size < mostSteps; i++) steps.add(i);
  }
  const decides = (value: number) => {
    const all = [...sorted, value].map((v, i) => ({ id: String(i), value: v }));
    const set = bestConcordantSet(all, concordance);
    return set !== null && set.members.length >= size && set.rivals.length === 0;
  };
  const windows: [number, number][] = [];
  for (const i of [...steps].sort((a, b) => a - b)) {
    const value = i * step;
    if (!decides(value)) continue;
    const last = windows.at(-1);
    if (last && value - last[1] < 1.5 * step) last[1] = value;
    else windows.push([value, value]);
  }
  return windows;
}

/** Where one more value would have to lie for the set to agree with it included; low above high where it never does. */
export function joiningWindow(
  { low, high, mean, members }: Pick<ConcordantSet, "low" | "high" | "mean" | "members">,
  concordance: Concordance,
): readonly [number, number] {
  const n = members.length;
  const sum = n * mean;
  switch (concordance.rule) {
    case "range":
      return high - low > concordance.width + dust
        ? [Infinity, -Infinity]
        : [high - concordance.width, low + concordance.width];
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
      // Within the set: high - low ≤ p (sum + x) / (n + 1).
      const p = concordance.part / (n + 1);
      return [
        Math.max((high - p * sum) / (1 + p), p > 0 ? (high - low) / p - sum : low),
        (low + p * sum) / (1 - p),
      ];
    }
  }
}
