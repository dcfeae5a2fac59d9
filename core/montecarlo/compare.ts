import { roundWithUncertainty } from "../quantity";
import type { Drawn } from "./propagate";

/** A result as the linear propagation gives it: value, standard uncertainty and half its 95 % interval. */
export interface LinearResult {
  readonly value: number;
  readonly standardUncertainty: number;
  readonly half95: number;
}

export interface Comparison {
  /** Whether the ends of the two intervals lie within the tolerance of each other. */
  readonly agree: boolean;
  /** Half a unit of the last digit that u is shown with: what the linear result claims to be good for. */
  readonly tolerance: number;
  readonly low: number;
  readonly high: number;
}

/**
 * Validates the linear propagation against the draws (JCGM 101, 8.1): δ is half of the last place that u is shown with (one
 * digit or two, by the rounding rule of all results); both ends of the coverage intervals must agree within it.
 */
export function compareWithDraws(linear: LinearResult, drawn: Drawn): Comparison {
  const { value, standardUncertainty: u, half95 } = linear;
  const tolerance = u > 0 ? 0.5 * 10 ** -roundWithUncertainty(value, u).decimals : 0;
  const low = Math.abs(value - half95 - drawn.interval[0]);
  const high = Math.abs(value + half95 - drawn.interval[1]);
  return { agree: low <= tolerance && high <= tolerance, tolerance, low, high };
}
