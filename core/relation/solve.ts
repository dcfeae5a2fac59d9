import { type Quantity, unitOf } from "../quantity";
import { failure, type Result, success } from "../result";
import { evaluate, evaluateNumber, type NumberScope, type Stoichiometry } from "./evaluate";
import type { Relation } from "./parse";
import { msg } from "../text";

/**
 * A root of f between two points at which it has opposite signs, by Brent's method (R. P. Brent, Algorithms for
 * Minimization without Derivatives, 1973, ch. 4). Says so when the signs do not differ.
 */
export function findRoot(
  f: (x: number) => number,
  low: number,
  high: number,
  tolerance = 1e-13,
): Result<number> {
  let [a, b] = [low, high];
  let [fa, fb] = [f(a), f(b)];
  if (!(fa * fb <= 0)) return failure(msg`No solution lies between the two bounds`);
  let [c, fc] = [a, fa];
  let step = b - a;
  let before = step;
  for (let i = 0; i < 200; i++) {
    if (fb * fc > 0) {
      [c, fc] = [a, fa];
      before = step = b - a;
    }
    if (Math.abs(fc) < Math.abs(fb)) {
      [a, b, c] = [b, c, b];
      [fa, fb, fc] = [fb, fc, fb];
    }
    const small = 2 * Number.EPSILON * Math.abs(b) + 0.5 * tolerance;
    const half = (c - b) / 2;
    if (Math.abs(half) <= small || fb === 0) return success(b);
    if (Math.abs(before) >= small && Math.abs(fa) > Math.abs(fb)) {
      const s = fb / fa;
      let [p, q] = [2 * half * s, 1 - s];
      if (a !== c) {
        const [r1, r2] = [fa / fc, fb / fc];
        p = s * (2 * half * r1 * (r1 - r2) - (b - a) * (r2 - 1));
        q = (r1 - 1) * (r2 - 1) * (s - 1);
      }
      if (p > 0) q = -q;
      p = Math.abs(p);
      if (2 * p < Math.min(3 * half * q - Math.abs(small * q), Math.abs(before * q))) {
        before = step;
        step = p / q;
      } else {
        before = step = half;
      }
    } else {
      before = step = half;
    }
    [a, fa] = [b, fb];
    b += Math.abs(step) > small ? step : Math.sign(half) * small;
    fb = f(b);
  }
  return success(b);
}

/** Evaluates relations in order on top of what was read, and returns every symbol's quantity. */
export function evaluateRelations(
  relations: readonly Relation[],
  inputs: ReadonlyMap<string, Quantity>,
  stoichiometry: Stoichiometry,
): Map<string, Quantity> {
  const symbols = new Map(inputs);
  for (const { symbol, expression } of relations)
    symbols.set(symbol, evaluate(expression, { symbols, stoichiometry }));
  return symbols;
}

export interface TiterProblem {
  readonly relations: readonly Relation[];
  readonly stoichiometry: Stoichiometry;
  /** All that is known of the trial in base units, the titer left out. */
  readonly known: ReadonlyMap<string, number>;
  /** The symbol of the titer. */
  readonly titer: string;
  /** The symbol whose value is known or presumed, and that value in base units. */
  readonly target: string;
  readonly value: number;
  readonly molarMassOf?: NumberScope["molarMassOf"];
}

/**
 * The titer in mL at which the relations give the target its value. It is looked for up to `limitMl`;
 * beyond that, or where a symbol is still missing, there is none.
 */
export function solveForTiter(problem: TiterProblem, limitMl = 1000): Result<number> {
  const { relations, stoichiometry, known, titer, target, value, molarMassOf } = problem;
  const numbers = new Map(known);
  const scope: NumberScope = { numbers, stoichiometry, ...(molarMassOf ? { molarMassOf } : {}) };
  const scale = value === 0 ? 1 : value;
  const difference = (ml: number): number => {
    numbers.set(titer, ml * unitOf("mL").factor);
    for (const { symbol, expression } of relations) numbers.set(symbol, evaluateNumber(expression, scope));
    return ((numbers.get(target) ?? NaN) - value) / scale;
  };
  if (Number.isNaN(difference(1))) return failure(msg`Something it depends on has not been read yet`);
  return findRoot(difference, 1e-6, limitMl);
}
