import type { Setting } from "./acid";
import { risingRoot } from "./root";
import { solvePH } from "./solution";
import { poured, type Titrated } from "./titration-curve";

/** An indicator of acids and bases: from which pH to which it changes its color. */
export interface PHRange {
  readonly from: number;
  readonly to: number;
}

/** Where an indicator changes along a titration, and how far that is from the equivalence point. */
export interface IndicatorError {
  /** Titrant at the beginning and at the end of the change, in the order in which they are reached, mL. */
  readonly beginsMl: number;
  readonly endsMl: number;
  /** Error in the middle of the change, mL; positive where it comes late. */
  readonly errorMl: number;
  /** The same as a part of the equivalence volume. */
  readonly relative: number;
}

/** Titrant at which a titration has a pH, mL, looked for up to `mostMl`; that or zero where it never has. */
export function volumeAt(titrated: Titrated, pH: number, setting: Setting, mostMl: number): number {
  const { flask, flaskMl, titrant } = titrated;
  const at = (ml: number) => solvePH(poured(flask, flaskMl, titrant, ml), setting).pH;
  const rises = at(mostMl) > at(0);
  return risingRoot((ml) => (rises ? at(ml) - pH : pH - at(ml)), 0, mostMl, 1e-9);
}

/** How an indicator shows the equivalence point of a titration, by the curve that the constants give. */
export function indicatorError(
  titrated: Titrated,
  equivalenceMl: number,
  { from, to }: PHRange,
  setting: Setting,
): IndicatorError {
  const at = (pH: number) => volumeAt(titrated, pH, setting, 3 * equivalenceMl);
  const [beginsMl = NaN, endsMl = NaN] = [at(from), at(to)].toSorted((a, b) => a - b);
  const errorMl = at((from + to) / 2) - equivalenceMl;
  return { beginsMl, endsMl, errorMl, relative: errorMl / equivalenceMl };
}
