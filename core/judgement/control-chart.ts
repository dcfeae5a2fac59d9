import { failure, type Result, success } from "../result";
import { mean as meanOf } from "../statistics";
import { msg, type Phrase } from "../text";

/** Rules by which a control chart tells that a process has changed. Of a normal process each fires seldom, and never tells where it changed. */
export type ControlRule =
  | "beyond-three"
  | "two-of-three-beyond-two"
  | "four-of-five-beyond-one"
  | "eight-on-one-side"
  | "six-rising-or-falling";

export const controlRuleWords: Readonly<Record<ControlRule, Phrase>> = {
  "beyond-three": msg`beyond 3 s`,
  "two-of-three-beyond-two": msg`two of three beyond 2 s on one side`,
  "four-of-five-beyond-one": msg`four of five beyond 1 s on one side`,
  "eight-on-one-side": msg`eight in a row on one side of the mean`,
  "six-rising-or-falling": msg`six in a row rising or falling`,
};

export interface ControlPoint {
  readonly value: number;
  /** Rules that fire at this point: it completes what they look for. */
  readonly fired: readonly ControlRule[];
}

export interface ControlChart {
  readonly mean: number;
  /** Standard deviation of single values, by what the limits are drawn. */
  readonly s: number;
  /** How many of the first values mean and s come from; null where they were stated. */
  readonly from: number | null;
  /** True where they come from fewer than `enough` values. */
  readonly provisional: boolean;
  readonly points: readonly ControlPoint[];
}

/** So many values a chart's limits need. Common practice, no source. */
export const enough = 20;

/** The mean of the ranges of two normal values is this many standard deviations: d2 for n = 2. */
const d2 = 1.128;

/** For mean and limits: those that were stated, or so many of the first values. */
export type ControlBasis = { readonly first: number } | { readonly mean: number; readonly s: number };

/**
 * Mean and standard deviation of single values from their moving ranges: s = MR / 1.128, MR the mean of |x(i) − x(i−1)|. Formula: NIST/SEMATECH
 * e-Handbook of Statistical Methods, 6.3.2.2, individuals control charts.
 */
function fromMovingRange(values: readonly number[]): { mean: number; s: number } {
  const ranges = values.slice(1).map((x, i) => Math.abs(x - values[i]!));
  return { mean: meanOf(values), s: meanOf(ranges) / d2 };
}

/** Whether at least `least` of the last `of` deviations lie beyond `bound` on the side of the last one, itself among them. */
function beyond(z: readonly number[], at: number, least: number, of: number, bound: number): boolean {
  const last = z[at]!;
  const side = Math.sign(last);
  if (side * last <= bound) return false;
  const window = z.slice(Math.max(0, at - of + 1), at + 1);
  return window.filter((one) => side * one > bound).length >= least;
}

function monotone(values: readonly number[], at: number, length: number): boolean {
  if (at < length - 1) return false;
  const steps = Array.from({ length: length - 1 }, (_, i) => values[at - i]! - values[at - i - 1]!);
  return steps.every((step) => step > 0) || steps.every((step) => step < 0);
}

const rules: readonly (readonly [
  ControlRule,
  (z: readonly number[], values: readonly number[], at: number) => boolean,
])[] = [
  ["beyond-three", (z, _, at) => Math.abs(z[at]!) > 3],
  ["two-of-three-beyond-two", (z, _, at) => beyond(z, at, 2, 3, 2)],
  ["four-of-five-beyond-one", (z, _, at) => beyond(z, at, 4, 5, 1)],
  ["eight-on-one-side", (z, _, at) => at >= 7 && beyond(z, at, 8, 8, 0)],
  ["six-rising-or-falling", (_, values, at) => monotone(values, at, 6)],
];

/**
 * A control chart of single values in the order in which they were found: mean, standard deviation, and at each point the rules that fire.
 * Refused where there is nothing to draw limits from: fewer than two values, or values that do not scatter.
 */
export function controlChart(values: readonly number[], basis: ControlBasis): Result<ControlChart> {
  if (values.length === 0) return failure(msg`There is no value to chart`);
  const stated = "mean" in basis;
  const first = stated ? [] : values.slice(0, Math.max(2, Math.round(basis.first)));
  if (!stated && first.length < 2) return failure(msg`Limits need two values at least`);
  const { mean, s } = stated ? basis : fromMovingRange(first);
  if (!(s > 0))
    return failure(
      stated
        ? msg`The standard deviation must be above zero`
        : msg`The first ${first.length} values are all the same: there is no scatter to draw limits from`,
    );
  const z = values.map((x) => (x - mean) / s);
  return success({
    ...{ mean, s },
    from: stated ? null : first.length,
    provisional: !stated && first.length < enough,
    points: values.map((value, at) => ({
      value,
      fired: rules.flatMap(([rule, fires]) => (fires(z, values, at) ? [rule] : [])),
    })),
  });
}
