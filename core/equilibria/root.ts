import { findRoot } from "../relation";
import { mustHold } from "../result";

/**
 * The zero of a function that rises from below zero to above it between two places, by Brent's method. Where it does not change its sign
 * between them, the end that is nearer to zero.
 */
export function risingRoot(f: (x: number) => number, from: number, to: number, within = 1e-13): number {
  if (f(from) >= 0) return from;
  if (f(to) <= 0) return to;
  return mustHold(findRoot(f, from, to, within));
}
