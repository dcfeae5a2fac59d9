/*
 * Numbers and dates of a table, as text: digits are never made up or lost on the way.
 */

/** Units that differ by a power of ten, with the power. An equivalent is none of them: how many there are in a mole is chemistry. */
const powers: readonly Readonly<Record<string, number>>[] = [
  { L: 0, "dm³": 0, mL: -3, "cm³": -3, µL: -6 },
  { kg: 3, g: 0, mg: -3, µg: -6 },
  { "mol/L": 0, "mmol/L": -3 },
];

/** A unit as people type it. */
const spelled = (unit: string): string =>
  unit
    .replace(/^u(?=[Lg])/, "µ")
    .replace("μ", "µ")
    .replace(/^ml$/i, "mL")
    .replace(/^l$/, "L")
    .replace(/^cm3$/, "cm³")
    .replace(/^dm3$/, "dm³");

/** The units that a column may be in where a reading is wanted in `unit`: that one first. */
export const unitsFor = (unit: string): readonly string[] => {
  const group = powers.find((one) => unit in one);
  return group ? [unit, ...Object.keys(group).filter((other) => other !== unit)] : [unit];
};

/** The unit of a heading as one that can be converted; empty for none, null for one that does not fit. */
export function fittingUnit(typed: string, unit: string): string | null {
  const known = spelled(typed);
  if (known === "" || known === unit) return unit;
  return unitsFor(unit).includes(known) ? known : null;
}

/** How far the point moves from one unit to another. */
function shiftBetween(from: string, to: string): number {
  const group = powers.find((one) => from in one && to in one);
  return group ? (group[from] ?? 0) - (group[to] ?? 0) : 0;
}

/** A decimal with its point moved: 510.6 by -3 is 0.5106; all digits stay. */
export function shifted(decimal: string, by: number): string {
  const [, sign = "", whole = "", part = ""] = /^([+-]?)(\d*)\.?(\d*)$/.exec(decimal) ?? [];
  if (by === 0) return decimal;
  const digits = whole + part;
  const point = whole.length + by;
  const padded = point < 1 ? "0".repeat(1 - point) + digits : digits.padEnd(point, "0");
  const at = Math.max(point, 1);
  const [left, right] = [padded.slice(0, at).replace(/^0+(?=\d)/, ""), padded.slice(at)];
  return `${sign}${left}${right === "" ? "" : `.${right}`}`;
}

export interface NumberForm {
  /** The sign that parts the decimals. */
  readonly decimal: "point" | "comma";
  /** The unit of the column, and the one that is wanted. */
  readonly from: string;
  readonly to: string;
  /** Decimals that the reading has: zeros that a spreadsheet dropped at the end are put back; null leaves it as it is. */
  readonly decimals: number | null;
}

/** A number of a cell as a reading with a point, in the unit that is wanted; null where it is none. */
export function readingOf(cell: string, { decimal, from, to, decimals }: NumberForm): string | null {
  // Where decimals stand behind commas, 1.234 is a thousand and more, or a slip: it is not taken for one and a bit.
  if (decimal === "comma" && cell.includes(".")) return null;
  const text = decimal === "comma" ? cell.replace(",", ".") : cell;
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(text)) return null;
  const moved = shifted(text, shiftBetween(from, to));
  if (decimals === null) return moved;
  const [whole = "", part = ""] = moved.split(".");
  return part.length >= decimals ? moved : `${whole}.${part.padEnd(decimals, "0")}`;
}

export type DateOrder = "ymd" | "dmy" | "mdy";

/** A date of a cell, with the time where there is one; null where it is none in that order. */
export function dateOf(cell: string, order: DateOrder): Date | null {
  const [, a = "", b = "", c = "", hour = "12", minute = "00"] =
    /^(\d{1,4})[-./ ](\d{1,2})[-./ ](\d{1,4})\.?(?:[T ,]+(\d{1,2})[:.](\d{2}).*)?$/.exec(cell.trim()) ?? [];
  // A year of four digits in front says its order by itself.
  const used = a.length === 4 ? "ymd" : order;
  const [year, month, day] = { ymd: [a, b, c], dmy: [c, b, a], mdy: [c, a, b] }[used].map(Number) as [
    number,
    number,
    number,
  ];
  const full = year < 100 ? year + 2000 : year;
  const date = new Date(full, month - 1, day, Number(hour), Number(minute));
  const holds = date.getFullYear() === full && date.getMonth() === month - 1 && date.getDate() === day;
  return a !== "" && holds && Number(hour) < 24 && Number(minute) < 60 && full >= 1900 ? date : null;
}

/** The orders in which all dates of a column can be read: more than one, and somebody has to say which is meant. */
export function ordersOf(cells: readonly string[]): readonly DateOrder[] {
  const dates = cells.filter((cell) => cell !== "");
  const fitting = (["ymd", "dmy", "mdy"] as const).filter((order) =>
    dates.every((cell) => dateOf(cell, order) !== null),
  );
  const same = (a: DateOrder, b: DateOrder) =>
    dates.every((cell) => dateOf(cell, a)?.getTime() === dateOf(cell, b)?.getTime());
  // Orders that read every date alike leave nothing to ask.
  return fitting.filter((order, i) => !fitting.slice(0, i).some((before) => same(before, order)));
}

/** Whether the decimals of a table stand behind commas: where any does, and none behind a point. */
export function decimalSign(cells: readonly (readonly string[])[], commas: boolean): "point" | "comma" {
  if (commas) return "point";
  const numbers = cells.flat();
  const has = (pattern: RegExp) => numbers.some((cell) => pattern.test(cell));
  return has(/^[+-]?\d*,\d+$/) && !has(/^[+-]?\d*\.\d+$/) ? "comma" : "point";
}
