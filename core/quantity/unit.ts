import { type Dimension, dimensionless, multiplyDimensions, raiseDimension } from "./dimension";

export interface Unit {
  readonly text: string;
  readonly dimension: Dimension;
  /** How many coherent base units (dm, g, mol, s, K) one of this unit is. */
  readonly factor: number;
}

const simple: Record<string, readonly [Dimension, number]> = {
  "1": [dimensionless, 1],
  "%": [dimensionless, 1e-2],
  ppm: [dimensionless, 1e-6],
  kg: [[0, 1, 0, 0, 0], 1e3],
  g: [[0, 1, 0, 0, 0], 1],
  mg: [[0, 1, 0, 0, 0], 1e-3],
  µg: [[0, 1, 0, 0, 0], 1e-6],
  L: [[3, 0, 0, 0, 0], 1],
  mL: [[3, 0, 0, 0, 0], 1e-3],
  µL: [[3, 0, 0, 0, 0], 1e-6],
  "cm³": [[3, 0, 0, 0, 0], 1e-3],
  "dm³": [[3, 0, 0, 0, 0], 1],
  cm: [[1, 0, 0, 0, 0], 0.1],
  mm: [[1, 0, 0, 0, 0], 0.01],
  mol: [[0, 0, 1, 0, 0], 1],
  mmol: [[0, 0, 1, 0, 0], 1e-3],
  µmol: [[0, 0, 1, 0, 0], 1e-6],
  s: [[0, 0, 0, 1, 0], 1],
  min: [[0, 0, 0, 1, 0], 60],
  K: [[0, 0, 0, 0, 1], 1],
  "°C": [[0, 0, 0, 0, 1], 1],
};

const cache = new Map<string, Unit>();

/**
 * Reads a unit such as `g`, `mol/L` or `mL/g`: simple units joined by `·` and at most one `/`.
 * Throws on a unit it does not know; units come from methods, which are checked before they are used.
 */
export function unitOf(text: string): Unit {
  const known = cache.get(text);
  if (known) return known;
  const [over = "", under, ...rest] = text.split("/");
  if (rest.length > 0) throw new Error(`Unit "${text}" has more than one "/"`);
  let dimension = dimensionless;
  let factor = 1;
  const take = (part: string, power: 1 | -1) => {
    for (const name of part.split("·")) {
      const unit = simple[name.trim()];
      if (!unit) throw new Error(`Unit "${name}" in "${text}" is not known`);
      dimension = multiplyDimensions(dimension, raiseDimension(unit[0], power));
      factor = power === 1 ? factor * unit[1] : factor / unit[1];
    }
  };
  take(over, 1);
  if (under !== undefined) take(under, -1);
  const unit: Unit = { text, dimension, factor };
  cache.set(text, unit);
  return unit;
}
