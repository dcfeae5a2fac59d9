import { Bug } from "../result";
import {
  type Dimension,
  dimensionless,
  multiplyDimensions,
  raiseDimension,
  sameDimension,
} from "./dimension";
import { type Phrase, joined, unitText } from "../text";

export interface Unit {
  readonly text: string;
  readonly dimension: Dimension;
  /** How many coherent base units (dm, g, mol, s, K) one of this unit is. */
  readonly factor: number;
}

const simple: Record<string, readonly [Dimension, number]> = {
  "1": [dimensionless, 1],
  "%": [dimensionless, 1e-2],
  "% w/w": [dimensionless, 1e-2],
  "% v/v": [dimensionless, 1e-2],
  "‰": [dimensionless, 1e-3],
  ppm: [dimensionless, 1e-6],
  // What a photometer shows: a plain number, that a rate by absorbance is counted in.
  absorbance: [dimensionless, 1],
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
  nm: [[1, 0, 0, 0, 0], 1e-8],
  mol: [[0, 0, 1, 0, 0], 1],
  mmol: [[0, 0, 1, 0, 0], 1e-3],
  µmol: [[0, 0, 1, 0, 0], 1e-6],
  // An equivalent is an amount of substance: of electrons or hydrogen ions.
  eq: [[0, 0, 1, 0, 0], 1],
  meq: [[0, 0, 1, 0, 0], 1e-3],
  N: [[-3, 0, 1, 0, 0], 1],
  // Grams per 100 mL.
  "% w/v": [[-3, 1, 0, 0, 0], 10],
  // Hardness as calcium ions (CHECKS.md): 1 °dH = 0.1783 mmol/L, 1 °fH = 0.1 mmol/L, 1 °e = 14.254 mg/L of CaCO3.
  "°dH": [[-3, 0, 1, 0, 0], 0.1783e-3],
  "°fH": [[-3, 0, 1, 0, 0], 0.1e-3],
  "°e": [[-3, 0, 1, 0, 0], 14.254e-3 / 100.086],
  s: [[0, 0, 0, 1, 0], 1],
  min: [[0, 0, 0, 1, 0], 60],
  h: [[0, 0, 0, 1, 0], 3600],
  K: [[0, 0, 0, 0, 1], 1],
  // Temperatures enter relations as differences, so that a degree Celsius is a kelvin.
  "°C": [[0, 0, 0, 0, 1], 1],
};

const cache = new Map<string, Unit>();

/** True for a unit that `unitOf` can read. */
export function isUnit(text: string): boolean {
  try {
    unitOf(text);
    return true;
  } catch {
    return false;
  }
}

const raised: Readonly<Record<string, string>> = { "⁻": "-", "¹": "1", "²": "2", "³": "3", "⁴": "4" };

/** A unit of a product with its power: `mol`, `L^-1`, `s⁻¹`. A power that belongs to the name, as in `cm³`, stays with it. */
function unitWithPower(name: string): readonly [unit: readonly [Dimension, number], power: number] | null {
  const whole = simple[name];
  if (whole) return [whole, 1];
  const match = /^(.+?)(?:\^(-?\d)|(⁻?[¹²³⁴]))$/.exec(name);
  const unit = simple[match?.[1] ?? ""];
  if (!match || !unit) return null;
  return [unit, Number(match[2] ?? [...(match[3] ?? "")].map((c) => raised[c]).join(""))];
}

/**
 * Reads a unit such as `g`, `mol/L`, `L/(mol·cm)` or `L·mol⁻¹·s⁻¹`: simple units joined by `·`, with powers, and at most one
 * `/`; all that follows it is below the line, with brackets or without.
 * Throws on a unit it does not know; units come from methods, which are checked before they are used.
 */
export function unitOf(text: string): Unit {
  const known = cache.get(text);
  if (known) return known;
  const whole = simple[text];
  const [over = "", under, ...rest] = whole ? [text] : text.split("/");
  if (rest.length > 0) throw new Bug(`Unit "${text}" has more than one "/"`);
  let dimension = dimensionless;
  let factor = 1;
  const take = (part: string, sign: 1 | -1) => {
    for (const name of part
      .trim()
      .replace(/^\((.*)\)$/, "$1")
      .split("·")) {
      const found = unitWithPower(name.trim());
      if (!found) throw new Bug(`Unit "${name}" in "${text}" is not known`);
      const [unit, power] = found;
      dimension = multiplyDimensions(dimension, raiseDimension(unit[0], sign * power));
      const times = sign * power;
      factor = times === 1 ? factor * unit[1] : times === -1 ? factor / unit[1] : factor * unit[1] ** times;
    }
  };
  take(over, 1);
  if (under !== undefined) take(under, -1);
  const unit: Unit = { text, dimension, factor };
  cache.set(text, unit);
  return unit;
}

/** A unit as it is printed: nothing for a plain number, and brackets around several units below the line. */
export function printedUnit(text: string): string {
  if (text === "1") return "";
  const [over = "", under] = simple[text] ? [text] : text.split("/");
  return under?.includes("·") && !under.startsWith("(") ? `${over}/(${under})` : text;
}

/** A number with its printed unit behind it. */
export const withUnit = (number: string, unit: string): Phrase => {
  const printed = printedUnit(unit);
  return printed === "" ? number : joined([number, unitText(printed)], " ");
};

/** Units in which results are asked for, from large to small of each kind. */
const asked = [
  "mol/L",
  "mmol/L",
  "µmol/L",
  "g/L",
  "mg/L",
  "µg/L",
  "% w/v",
  "mol",
  "mmol",
  "µmol",
  "g",
  "mg",
  "µg",
  "g/g",
  "mg/g",
  "% w/w",
  "mg/kg",
  "% v/v",
  "‰",
  "ppm",
  "L",
  "mL",
  "µL",
];

/** The units in which a quantity of this unit can be shown instead, itself among them. */
export function unitsLike(unit: string): string[] {
  const { dimension } = unitOf(unit);
  const alike = asked.filter((other) => sameDimension(unitOf(other).dimension, dimension));
  return alike.includes(unit) ? alike : [unit, ...alike];
}
