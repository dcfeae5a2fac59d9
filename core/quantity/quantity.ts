import { Bug } from "../result";
import {
  type Dimension,
  dimensionless,
  divideDimensions,
  multiplyDimensions,
  raiseDimension,
  sameDimension,
} from "./dimension";
import { type Unit, unitOf } from "./unit";
import { type Phrase } from "../text";

/** Distributions of causes; "t" is scaled and shifted by its few degrees of freedom (JCGM 101, 6.4.9). */
export type LeafShape = "normal" | "rectangular" | "triangular" | "t";

/** What an uncertainty comes from. */
export type CauseKind =
  | ("burette" | "burette-reading" | "pipette" | "graduated pipette" | "cylinder" | "scale-reading")
  | (
      | "flask"
      | "filling"
      | "drops"
      | "count"
      | "weighing"
      | "linearity"
      | "temperature"
      | "thermometer"
      | "pH-meter"
    )
  | (
      | "purity"
      | "density"
      | "given"
      | "constant"
      | "atomic-weight"
      | "repeatability"
      | "line"
      | "readings"
      | "rate"
      | "curve"
      | "isotherm"
    )
  | ("blank" | "added-back" | "indicator-bias" | "other");

/**
 * One cause of uncertainty: this burette's calibration, this reading, this purity. Two quantities that rest on the
 * same cause share its leaf, so that what they have in common cancels or adds up and never averages out.
 */
export interface Leaf {
  /** Tells it from every other cause; says nothing else. */
  readonly id: string;
  /** What kind of cause it is. */
  readonly kind: CauseKind;
  /** Symbol of the input that it belongs to, where it belongs to one. */
  readonly symbol?: string;
  /** The cause in words, as a budget shows it. */
  readonly label: Phrase;
  /** Leaves of one group are shown as one share of the ±. */
  readonly group: Phrase;
  /** How the cause is distributed, for draws from it; the combined u needs only its standard uncertainty. */
  readonly shape: LeafShape;
  /** Standard uncertainty of the leaf, in the leaf's own unit; sensitivities are per that unit. */
  readonly u: number;
  /** True for what scatters from trial to trial anew, so that replicates show it by themselves. */
  readonly random: boolean;
  /** Degrees of freedom behind u; infinite when it is known from a tolerance and not from few readings. */
  readonly degreesOfFreedom: number;
  /** Leaves whose u come from one and the same scatter, as the parts of a fitted line: their degrees of freedom are shared. */
  readonly estimate?: string;
  /** The stage that brought this leaf in, where there is one. */
  readonly stage?: string;
}

export interface Sensitivity {
  readonly leaf: Leaf;
  /** Partial derivative of the quantity by the leaf, in base units per unit of the leaf. */
  readonly by: number;
}

/** A value in coherent base units with its dimension and its first-order sensitivities to every leaf (GUM, 5.1). */
export interface Quantity {
  readonly value: number;
  readonly dimension: Dimension;
  readonly sensitivities: ReadonlyMap<string, Sensitivity>;
}

const none: ReadonlyMap<string, Sensitivity> = new Map();

/** An exact quantity: `value` counted in `unit`, with no uncertainty. */
export function exact(value: number, unit: string | Unit = "1"): Quantity {
  const { factor, dimension } = typeof unit === "string" ? unitOf(unit) : unit;
  return { value: value * factor, dimension, sensitivities: none };
}

/** A quantity in `unit` with leaves; `by` is the sensitivity in that same unit per unit of the leaf. */
export function measured(value: number, unit: string, leaves: readonly Sensitivity[]): Quantity {
  const { factor, dimension } = unitOf(unit);
  const sensitivities = new Map<string, Sensitivity>();
  for (const { leaf, by } of leaves) if (leaf.u > 0) addSensitivity(sensitivities, leaf, by * factor);
  return { value: value * factor, dimension, sensitivities };
}

export function leaf(
  part: Pick<Leaf, "id" | "label" | "group" | "u"> &
    Partial<Pick<Leaf, "kind" | "symbol" | "shape" | "random" | "degreesOfFreedom" | "stage" | "estimate">>,
): Leaf {
  return { kind: "other", random: false, degreesOfFreedom: Infinity, shape: "normal", ...part };
}

function addSensitivity(to: Map<string, Sensitivity>, leaf: Leaf, by: number): void {
  const present = to.get(leaf.id);
  to.set(leaf.id, present ? { leaf, by: present.by + by } : { leaf, by });
}

function combine(a: Quantity, byA: number, b: Quantity, byB: number): ReadonlyMap<string, Sensitivity> {
  if (a.sensitivities.size === 0 && b.sensitivities.size === 0) return none;
  const result = new Map<string, Sensitivity>();
  for (const { leaf, by } of a.sensitivities.values()) addSensitivity(result, leaf, by * byA);
  for (const { leaf, by } of b.sensitivities.values()) addSensitivity(result, leaf, by * byB);
  return result;
}

/** a + b. Throws when the dimensions differ: relations are checked for that before anything is evaluated. */
export function add(a: Quantity, b: Quantity): Quantity {
  if (!sameDimension(a.dimension, b.dimension)) throw new Bug("Sum of unlike quantities");
  return { value: a.value + b.value, dimension: a.dimension, sensitivities: combine(a, 1, b, 1) };
}

export function subtract(a: Quantity, b: Quantity): Quantity {
  if (!sameDimension(a.dimension, b.dimension)) throw new Bug("Difference of unlike quantities");
  return { value: a.value - b.value, dimension: a.dimension, sensitivities: combine(a, 1, b, -1) };
}

export function multiply(a: Quantity, b: Quantity): Quantity {
  return {
    value: a.value * b.value,
    dimension: multiplyDimensions(a.dimension, b.dimension),
    sensitivities: combine(a, b.value, b, a.value),
  };
}

export function divide(a: Quantity, b: Quantity): Quantity {
  const value = a.value / b.value;
  return {
    value,
    dimension: divideDimensions(a.dimension, b.dimension),
    sensitivities: combine(a, 1 / b.value, b, -value / b.value),
  };
}

/** f(a) for a function of one variable with the given value and derivative at a; the result has `dimension`. */
export function applied(a: Quantity, value: number, derivative: number, dimension: Dimension): Quantity {
  return { value, dimension, sensitivities: combine(a, derivative, exact(0), 0) };
}

/** a raised to a power that is itself uncertain; both must be plain numbers, and a positive. */
export function power(a: Quantity, b: Quantity): Quantity {
  const value = a.value ** b.value;
  return {
    value,
    dimension: dimensionless,
    sensitivities: combine(a, b.value * a.value ** (b.value - 1), b, value * Math.log(a.value)),
  };
}

/** a raised to an exact power. */
export function raise(a: Quantity, power: number): Quantity {
  return applied(a, a.value ** power, power * a.value ** (power - 1), raiseDimension(a.dimension, power));
}

/** Combined standard uncertainty in base units: the root of the summed squares of sensitivity times u (GUM, eq. 10). */
export function standardUncertainty(q: Quantity, only: (leaf: Leaf) => boolean = () => true): number {
  let variance = 0;
  for (const { leaf, by } of q.sensitivities.values()) if (only(leaf)) variance += (by * leaf.u) ** 2;
  return Math.sqrt(variance);
}

/** More than anything measured, and little enough that squares of it and their sums are still numbers. */
const beyondMeasure = 1e100;

/** True where a value and its ± are numbers one can go on computing with: both finite, and neither out of all measure. */
export function isMeasurable(q: Quantity): boolean {
  return Math.abs(q.value) < beyondMeasure && standardUncertainty(q) < beyondMeasure;
}

/**
 * Effective degrees of freedom of the combined uncertainty (Welch-Satterthwaite; GUM, G.4). Leaves of one estimate are
 * taken together first, since their u are wrong by the same factor.
 */
export function effectiveDegreesOfFreedom(q: Quantity, only: (leaf: Leaf) => boolean = () => true): number {
  const variance = standardUncertainty(q, only) ** 2;
  const parts = new Map<string, { variance: number; degreesOfFreedom: number }>();
  for (const { leaf, by } of q.sensitivities.values()) {
    if (!Number.isFinite(leaf.degreesOfFreedom) || !only(leaf)) continue;
    const key = leaf.estimate ?? leaf.id;
    const part = (by * leaf.u) ** 2 + (parts.get(key)?.variance ?? 0);
    parts.set(key, { variance: part, degreesOfFreedom: leaf.degreesOfFreedom });
  }
  let sum = 0;
  for (const part of parts.values()) sum += part.variance ** 2 / part.degreesOfFreedom;
  return sum === 0 ? Infinity : variance ** 2 / sum;
}

export function inUnit(q: Quantity, unit: string): number {
  return q.value / unitOf(unit).factor;
}

export const isPlainNumber = (q: Quantity) => sameDimension(q.dimension, dimensionless);
