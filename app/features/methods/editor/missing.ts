import type { Method } from "~/core/method";
import type { MethodProblem } from "~/core/stages";
import { msg, type Phrase } from "~/core/text";
import { gaps } from "./preview";

/* What would keep a method from being saved though its chemistry holds: texts that are empty, numbers that are none. */

/** What is typed as a number and kept as it was typed. */
const decimals = new Set([
  "value",
  "plusMinus",
  "percent",
  "ml",
  "presumedMl",
  "usual",
  "volumeMl",
  "plusMinusMl",
]);
const isDecimal = (text: string): boolean => /^-?\d+(\.\d+)?$/.test(text);

/** What is wrong with one value, by the name that it has; null where nothing is. */
function wrongWith(name: string, value: string | number): Phrase | null {
  if (typeof value === "number") return Number.isFinite(value) ? null : msg`is no number`;
  if (value.trim() === "") return msg`is empty`;
  const asNumber = decimals.has(name) || (name === "presumed" && /\d/.test(value));
  return asNumber && !isDecimal(value) ? msg`is no number: ${value}` : null;
}

/** Everything in a method that is empty, or no number, with the way to it. */
function* wrongIn(
  value: unknown,
  path: readonly (string | number)[],
): Generator<readonly [typeof path, Phrase]> {
  if (typeof value === "string" || typeof value === "number") {
    const words = wrongWith(String(path.at(-1)), value);
    if (words !== null) yield [path, words];
    return;
  }
  if (value === null || typeof value !== "object") return;
  const entries = Array.isArray(value) ? value.entries() : Object.entries(value);
  for (const [key, one] of entries) {
    yield* wrongIn(one, [...path, key]);
  }
}

/**
 * What keeps a method from being saved, in words, beside what its check found. Where this is empty and the check found nothing,
 * saving works.
 */
export function missingIn(method: Method, problem: MethodProblem | null): readonly Phrase[] {
  const missing = gaps(method);
  if (problem || missing.length > 0) return missing;
  return [...wrongIn(method, [])].slice(0, 12).map(([path, words]) => msg`${placeOf(method, path)} ${words}`);
}

/** A place in a method in words: "Titrate the sample: relations 2, unit". */
function placeOf(method: Method, path: readonly (string | number)[]): Phrase {
  const inWords = (parts: readonly (string | number)[]) =>
    parts
      .map((part, i) => (typeof part === "number" ? ` ${part + 1}` : i === 0 ? part : `, ${part}`))
      .join("");
  const [first, at, ...rest] = path;
  const stage = first === "stages" && typeof at === "number" ? method.stages[at] : undefined;
  return stage ? msg`${stage.title}: ${inWords(rest)}` : inWords(path);
}
