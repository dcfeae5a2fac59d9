import { studentT } from "../quantity";
import type { Replicate } from "./concordance";
import { mean, standardDeviation } from "../statistics";
import { msg, type Phrase } from "../text";

export type OutlierTest = "none" | "dixon-90" | "dixon-95" | "dixon-99" | "grubbs";

export interface OutlierAdvice {
  readonly test: Phrase;
  /** Id of the replicate that lies farthest out. */
  readonly suspect: string;
  readonly statistic: number;
  readonly critical: number;
  /** True when the statistic exceeds its critical value: the replicate would be an outlier by this test. */
  readonly exceeds: boolean;
}

/**
 * Critical values of Dixon's r10 for n = 3 to 10, two-sided. Source: D. B. Rorabacher, Anal. Chem. 63 (1991) 139, as given
 * in CHECKS.md.
 */
const dixonCritical: Readonly<Record<90 | 95 | 99, readonly number[]>> = {
  90: [0.941, 0.765, 0.642, 0.56, 0.507, 0.468, 0.437, 0.412],
  95: [0.97, 0.829, 0.71, 0.625, 0.568, 0.526, 0.493, 0.466],
  99: [0.994, 0.926, 0.821, 0.74, 0.68, 0.634, 0.598, 0.568],
};

/**
 * Dixon's Q (r10): the gap of the end value that stands farther off, over the range. Null outside n = 3 to 10, for which
 * there are tables, and where all values are equal.
 */
export function dixonTest(replicates: readonly Replicate[], confidence: 90 | 95 | 99): OutlierAdvice | null {
  const sorted = [...replicates].sort((a, b) => a.value - b.value);
  const critical = dixonCritical[confidence][sorted.length - 3];
  const [first, second] = sorted;
  const [last, beforeLast] = [sorted.at(-1), sorted.at(-2)];
  if (critical === undefined || !first || !second || !last || !beforeLast) return null;
  const range = last.value - first.value;
  if (!(range > 0)) return null;
  const [below, above] = [(second.value - first.value) / range, (last.value - beforeLast.value) / range];
  const statistic = Math.max(below, above);
  return {
    test: msg`Dixon's Q at ${confidence} %`,
    suspect: (below > above ? first : last).id,
    statistic,
    critical,
    // Compared as shown, to three decimals, so that binary dust does not decide.
    exceeds: Math.round(statistic * 1000) > Math.round(critical * 1000),
  };
}

/**
 * Critical value of Grubbs' G: (n-1)/√n · √(t²/(n-2+t²)), with t an upper quantile of Student's distribution with n-2 degrees
 * of freedom. For the farthest value on either side, which is what a look at both ends takes, the quantile is that of α/(2n);
 * for one end that was named beforehand, that of α/n (ISO 5725-2; ASTM E178; F. E. Grubbs, Technometrics 11 (1969) 1).
 */
export function grubbsCritical(n: number, alpha = 0.05, side: "either" | "named" = "either"): number {
  const t = studentT(1 - ((side === "either" ? 1 : 2) * alpha) / n, n - 2);
  return ((n - 1) / Math.sqrt(n)) * Math.sqrt(t ** 2 / (n - 2 + t ** 2));
}

/** Grubbs' test: the distance of the value farthest from the mean, in standard deviations. Null for fewer than three. */
export function grubbsTest(replicates: readonly Replicate[]): OutlierAdvice | null {
  const values = replicates.map(({ value }) => value);
  const [m, s] = [mean(values), standardDeviation(values)];
  if (values.length < 3 || !(s > 0)) return null;
  const suspect = [...replicates].sort((a, b) => Math.abs(b.value - m) - Math.abs(a.value - m))[0];
  if (!suspect) return null;
  const statistic = Math.abs(suspect.value - m) / s;
  const critical = grubbsCritical(values.length);
  return {
    test: msg`Grubbs' test at 5 %`,
    suspect: suspect.id,
    statistic,
    critical,
    exceeds: statistic > critical,
  };
}

/** Why the house's test says nothing of so many replicates, and what would; null where it does. */
export const noOutlierTest = (count: number, test: OutlierTest): Phrase | null =>
  test.startsWith("dixon") && count > 10
    ? msg`Dixon's Q has no critical value for ${count} trials (its table ends at ten; r10 is recommended for three to seven): use Grubbs' test`
    : null;

/** What the house's test for outliers says of the replicates. It advises; nothing is ever left out because of it. */
export function outlierAdvice(replicates: readonly Replicate[], test: OutlierTest): OutlierAdvice | null {
  switch (test) {
    case "none":
      return null;
    case "grubbs":
      return grubbsTest(replicates);
    case "dixon-90":
      return dixonTest(replicates, 90);
    case "dixon-95":
      return dixonTest(replicates, 95);
    case "dixon-99":
      return dixonTest(replicates, 99);
  }
}
