import { msg, type Phrase } from "../text";

/**
 * Exponents of the base dimensions, in the order length, mass, amount of substance, time, temperature.
 * The coherent base units are dm, g, mol, s and K, so that a volume comes out in liters and a concentration in mol/L.
 */
export type Dimension = readonly [
  length: number,
  mass: number,
  amount: number,
  time: number,
  temperature: number,
];

export const dimensionless: Dimension = [0, 0, 0, 0, 0];

export function sameDimension(a: Dimension, b: Dimension): boolean {
  return a.every((exponent, i) => exponent === b[i]);
}

export function multiplyDimensions(a: Dimension, b: Dimension): Dimension {
  return [a[0] + b[0], a[1] + b[1], a[2] + b[2], a[3] + b[3], a[4] + b[4]];
}

export function raiseDimension(a: Dimension, power: number): Dimension {
  return [a[0] * power, a[1] * power, a[2] * power, a[3] * power, a[4] * power];
}

export function divideDimensions(a: Dimension, b: Dimension): Dimension {
  return multiplyDimensions(a, raiseDimension(b, -1));
}

const names: readonly [Phrase, Dimension][] = [
  [msg`a plain number`, [0, 0, 0, 0, 0]],
  [msg`a length`, [1, 0, 0, 0, 0]],
  [msg`a volume`, [3, 0, 0, 0, 0]],
  [msg`a mass`, [0, 1, 0, 0, 0]],
  [msg`an amount of substance`, [0, 0, 1, 0, 0]],
  [msg`a time`, [0, 0, 0, 1, 0]],
  [msg`a temperature`, [0, 0, 0, 0, 1]],
  [msg`an amount concentration`, [-3, 0, 1, 0, 0]],
  [msg`a mass concentration`, [-3, 1, 0, 0, 0]],
  [msg`a molar mass`, [0, 1, -1, 0, 0]],
  [msg`a volume per mass`, [3, -1, 0, 0, 0]],
  [msg`an amount per mass`, [0, -1, 1, 0, 0]],
];

const exponentText = (exponent: number) =>
  String(exponent).replace(/[-.0-9]/g, (c) => ({ "-": "⁻", ".": "·" })[c] ?? "⁰¹²³⁴⁵⁶⁷⁸⁹"[Number(c)] ?? c);

/** A dimension in words, as in "a mass" or "an amount concentration"; in base units where it has no name. */
export function describeDimension(dimension: Dimension): Phrase {
  const known = names.find(([, named]) => sameDimension(named, dimension));
  if (known) return known[0];
  const units = ["dm", "g", "mol", "s", "K"];
  const parts = dimension.flatMap((exponent, i) =>
    exponent === 0 ? [] : [(units[i] ?? "") + (exponent === 1 ? "" : exponentText(exponent))],
  );
  return msg`a quantity in ${parts.join("·")}`;
}
