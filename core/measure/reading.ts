import { type Result, success } from "../result";
import { withPoint, msg, type Phrase, joined, unitText } from "../text";

/** Something about a reading that people should know before it is used. `stop` refuses it, `caution` only tells. */
export interface Check {
  readonly severity: "stop" | "caution";
  readonly message: Phrase;
  /** What kind of slip it looks like. */
  readonly kind?:
    | "resolution"
    | "scale"
    | "order"
    | "jump"
    | "swapped digits"
    | "off by a mark"
    | "dropped digit"
    | "same reading"
    | "repeat"
    | "window"
    | "temperature"
    | "start"
    | "time"
    | "back"
    | "zero"
    | "impossible"
    | "glass";
  /** What was probably meant, ready to be typed in its place. */
  readonly proposal?: string;
}

/** What is known about a field before anything is typed into it: numbers in the field's unit. */
export interface ReadingRules {
  /** What is read, as the message names it: "The burette", "The balance". */
  readonly instrument: Phrase;
  readonly unit: string;
  /** Decimals that the instrument shows or lets one estimate; null where any number of them will do. */
  readonly decimals: number | null;
  /** The step to which it is read, where that is not the last decimal. */
  readonly step?: number;
  readonly least?: number;
  readonly most?: number;
  /** True where zero is no possible reading. */
  readonly aboveZero?: boolean;
}

/** A number as it was read, and its text with a point for a comma. */
export interface NumberRead {
  readonly value: number;
  readonly text: string;
}

/** What was read, or why it cannot be. */
export type CheckedReading = Result<NumberRead, Check>;

const refuse = (message: Phrase, kind?: Check["kind"], proposal?: string): CheckedReading => ({
  ok: false,
  problem: {
    severity: "stop",
    message,
    ...(kind === undefined ? {} : { kind }),
    ...(proposal === undefined ? {} : { proposal }),
  },
});

const places = [
  msg`whole number`,
  msg`tenth`,
  msg`hundredth`,
  msg`thousandth`,
  msg`fourth decimal`,
  msg`fifth decimal`,
];

const inUnitOf = ({ unit }: ReadingRules, text: string | number): Phrase =>
  unit === "" ? String(text) : joined([String(text), unitText(unit)], " ");

/** What no scale shows: less than its least, more than its most. */
function beyondScale(plain: string, rules: ReadingRules): CheckedReading | null {
  const value = Number(plain);
  const { unit, least, most, aboveZero, instrument } = rules;
  if (aboveZero && value <= 0)
    return refuse(msg`${instrument} cannot be ${inUnitOf(rules, plain)}: it must be more than zero`, "scale");
  if (least !== undefined && value < least) {
    const words = least === 0 ? "zero" : msg`${inUnitOf(rules, least)}, the least possible`;
    return refuse(msg`${plain} is below ${words}`, "scale");
  }
  if (most === undefined || value <= most) return null;
  return refuse(
    unit === "mL"
      ? msg`${plain} is beyond the last mark, ${most} ${unitText(unit)}`
      : msg`${plain} is more than ${inUnitOf(rules, most)}, the most possible`,
    "scale",
  );
}

/** Too few decimals, or too many, for the instrument. */
function otherResolution(
  plain: string,
  decimals: number,
  { instrument }: ReadingRules,
): CheckedReading | null {
  const given = plain.split(".")[1]?.length ?? 0;
  const place = places[decimals] ?? `${decimals} decimals`;
  if (given > decimals) {
    const words = msg`"${plain}" has ${given - decimals} too many`;
    return refuse(msg`${instrument} is read to the ${place}: ${words}`, "resolution");
  }
  if (given === decimals) return null;
  const proposal = `${plain.includes(".") ? plain : `${plain}.`}${"0".repeat(decimals - given)}`;
  const missing = decimals - given > 1 ? msg`decimals are missing` : msg`a decimal is missing`;
  const message = msg`${instrument} is read to the ${place} and ${missing}: ${proposal}?`;
  return refuse(message, "resolution", proposal);
}

/** Between the steps in which the instrument is read. */
function betweenSteps(
  plain: string,
  decimals: number,
  { instrument, step }: ReadingRules,
): CheckedReading | null {
  if (step === undefined) return null;
  const steps = Number(plain) / step;
  if (Math.abs(steps - Math.round(steps)) <= 1e-6) return null;
  const nearest = (Math.round(steps) * step).toFixed(decimals);
  return refuse(msg`${instrument} is read in steps of ${step} here: ${nearest}?`, "resolution", nearest);
}

/**
 * A number as people type it. A comma is accepted as decimal point. Trailing zeros are kept in `text`,
 * which is what was typed with a point for a comma.
 */
export function parseReading(typed: string, rules: ReadingRules): CheckedReading {
  const text = typed.trim().replace(/\s+/g, "").replace(/−/g, "-");
  if (text === "") return refuse(msg`Nothing has been typed yet`);
  const marks = text.match(/[.,]/g)?.length ?? 0;
  if (marks > 1) return refuse(msg`"${typed.trim()}" has two decimal points: keep one`);
  // A number that is stated, and not read off a scale, may be written with a power of ten.
  const { decimals } = rules;
  const odd = (decimals === null ? /[^0-9.,+\-eE]/ : /[^0-9.,+-]/).exec(text)?.[0];
  if (odd) return refuse(msg`"${odd}" is not a digit: type only the number, as in ${exampleOf(rules)}`);
  const plain = decimals === null ? withoutPower(withPoint(text)) : withPoint(text);
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) {
    return refuse(msg`"${typed.trim()}" cannot be read as a number: type it as in ${exampleOf(rules)}`);
  }
  const wrong =
    beyondScale(plain, rules) ??
    (decimals === null
      ? null
      : (otherResolution(plain, decimals, rules) ?? betweenSteps(plain, decimals, rules)));
  return wrong ?? success({ value: Number(plain), text: plain });
}

/** The plain decimal that a number with a power of ten means, all its figures kept: 2.50e-4 is 0.000250. */
export function withoutPower(text: string): string {
  const match = /^([+-]?)(\d+\.?\d*|\.\d+)[eE]([+-]?\d{1,2})$/.exec(text);
  if (!match) return text;
  const [, sign = "", digits = "", power = "0"] = match;
  const [whole = "", decimals = ""] = digits.split(".");
  const all = whole + decimals;
  const point = whole.length + Number(power);
  if (point <= 0) return `${sign}0.${"0".repeat(-point)}${all}`;
  if (point >= all.length) return sign + (all + "0".repeat(point - all.length)).replace(/^0+(?=\d)/, "");
  return `${sign}${all.slice(0, point).replace(/^0+(?=\d)/, "")}.${all.slice(point)}`;
}

function exampleOf({ decimals, most }: ReadingRules): string {
  const sample = most !== undefined && most >= 25 ? 12.3456 : 0.4567;
  return decimals === null ? "25.00" : sample.toFixed(decimals);
}
