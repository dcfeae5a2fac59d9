import { type ChangeAlong, type IndicatorError, indicatorError } from "../../equilibria";
import type { Phrase } from "../../text";
import { type Indicator, seenAt } from "./known";

/** What the axis of a curve shows: pH, -log10 of a free metal by its symbol, or a potential. */
export type Scale =
  { readonly is: "pH" } | { readonly is: "pM"; readonly metal: string } | { readonly is: "V" };

/** An indicator along one titration. */
export interface Changing {
  readonly indicator: Indicator;
  readonly change: ChangeAlong;
  /** Where it changes on the axis of the curve; by the curve itself where it depends on what else is in the flask. */
  readonly range?: readonly [from: number, to: number];
}

/** A titration by theory. */
export interface EndTheory {
  readonly titrant: string;
  /** What is titrated. */
  readonly analyte: string;
  /** In the flask at the start, mL. */
  readonly flaskMl: number;
  readonly equivalenceMl: number;
  /** How far it is drawn, mL. */
  readonly endMl: number;
  readonly scale: Scale;
  /** What the axis shows after an addition of titrant, mL. */
  readonly at: (addedMl: number) => number;
  readonly changing: readonly Changing[];
  /** What the theory takes for granted. */
  readonly assumed: Phrase;
}

/** An indicator, and how far from the equivalence point it changes. */
export interface RatedIndicator extends IndicatorError {
  readonly indicator: Indicator;
  /** Where it changes on the axis of the curve. */
  readonly from: number;
  readonly to: number;
  /** True where it is seen within a drop of the equivalence point, or within 0.2 % of the titer. */
  readonly suits: boolean;
}

/** A titer is no better than this part of itself anyway. Common practice, no source. */
const closeEnough = 0.002;

/** Whether an end that is off by so much, mL, is as good as a titer can be. */
export const isClose = (errorMl: number, equivalenceMl: number, dropMl: number): boolean =>
  Math.abs(errorMl) <= Math.max(dropMl, closeEnough * equivalenceMl);

/** A larger part of the titer than this is no end point for a determination. Common practice, no source. */
export const tolerableError = 0.02;

/** Indicators with their errors, best first. `dropMl` is a drop of the burette. */
export const ratedIndicators = (
  { equivalenceMl, at, changing }: EndTheory,
  dropMl: number,
): RatedIndicator[] =>
  changing
    .map(({ indicator, change, range }) => {
      const error = indicatorError(change, equivalenceMl, seenAt(indicator));
      const [a, b] = range ?? [at(error.beginsMl), at(error.endsMl)];
      const suits = isClose(error.errorMl, equivalenceMl, dropMl);
      return { indicator, ...error, from: Math.min(a, b), to: Math.max(a, b), suits };
    })
    .toSorted((a, b) => Math.abs(a.errorMl) - Math.abs(b.errorMl));

/** Points of a curve, closer where it is steep: volume in mL and what the axis shows. */
export function curvePoints({
  at,
  equivalenceMl,
  endMl,
}: EndTheory): (readonly [ml: number, value: number])[] {
  const even = Array.from({ length: 161 }, (_, i) => (endMl * i) / 160);
  // About the end in steps that halve.
  const near = Array.from({ length: 14 }, (_, i) => equivalenceMl / 2 ** (i + 3)).flatMap((off) => [
    equivalenceMl - off,
    equivalenceMl + off,
  ]);
  return [...even, equivalenceMl, ...near].toSorted((a, b) => a - b).map((ml) => [ml, at(ml)] as const);
}
