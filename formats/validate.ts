import type { ErrorObject } from "ajv";
import { failure, type Result, success } from "~/core/result";
import { type Phrase, inEnglish } from "~/core/text";
import type { Valid } from "./compile";

/** What is wrong with a value, and where: keys and indices joined by points. */
export interface PathProblem {
  readonly path: string;
  readonly message: Phrase;
}

/** More values than this in one text are no method, no bottle and no table of a class. */
const mostValues = 60_000;
/** Deeper than this nothing is that is written here. */
const mostLevels = 40;
/** Nobody reads more of them at once. */
const mostProblems = 100;

/**
 * What makes a value unfit to be looked at closer: too much of it, too deep, or a character that no database keeps (NUL, half a
 * surrogate pair). Looks at each value once and stops at the first fault.
 */
function unfit(value: unknown, most: number): PathProblem | null {
  let left = most;
  const at = (path: readonly (string | number)[]) => (path.length === 0 ? "the whole" : path.join("."));
  const broken = (text: string) => text.includes("\0") || /\p{Cs}/u.test(text);
  const look = (x: unknown, path: readonly (string | number)[]): PathProblem | null => {
    if (--left < 0)
      return { path: "the whole", message: `holds more than ${most.toLocaleString("en")} values` };
    if (typeof x === "string")
      return broken(x) ? { path: at(path), message: "holds a character that cannot be kept" } : null;
    if (typeof x !== "object" || x === null) return null;
    if (path.length >= mostLevels)
      return { path: at(path), message: `is nested more than ${mostLevels} deep` };
    for (const [key, inner] of Object.entries(x)) {
      if (!Array.isArray(x) && broken(key))
        return { path: at(path), message: "holds a name with a character that cannot be kept" };
      const found = look(inner, [...path, key]);
      if (found) return found;
    }
    return null;
  };
  return look(value, []);
}

/** What a pattern asks for, in words. */
const patternWords: Readonly<Record<string, string>> = {
  "^[A-Za-z0-9][A-Za-z0-9-]{0,79}$": "is made of letters, digits and hyphens, at most 80",
  "^-?\\d+(\\.\\d+)?$": "must be a number, as in 25.00",
  "^\\d+(\\.\\d+)?$": "must be a number, as in 25.00",
  "^#[0-9a-f]{6}$": "must be a color, as in #ffd0e0",
};

function described({ instancePath, message, keyword, params }: ErrorObject): PathProblem {
  const path =
    instancePath === "" ? "the whole" : instancePath.slice(1).replaceAll("/", ".").replaceAll("~1", "/");
  switch (keyword) {
    case "enum": {
      const allowed = (params as { allowedValues: (string | number | null)[] }).allowedValues;
      const words = allowed.map((v) => (v === null ? "nothing" : v));
      return { path, message: `must be one of ${words.join(", ")}` };
    }
    case "const":
      return { path, message: `must be ${String((params as { allowedValue: unknown }).allowedValue)}` };
    case "type":
      return { path, message: (message ?? "").replace(",", " or ") };
    case "pattern":
      return { path, message: patternWords[(params as { pattern: string }).pattern] ?? message ?? "" };
    case "additionalProperties":
      return {
        path,
        message: `${message}: "${(params as { additionalProperty: string }).additionalProperty}"`,
      };
    default:
      return { path, message: message ?? "is not as it should be" };
  }
}

/**
 * A checker for one compiled schema that lists what is wrong, by path: nothing where all is well, the first hundred problems
 * where there are more. Takes time in proportion to the value, and none for one that is too long.
 */
export function pathChecker(valid: Valid, most = mostValues): (value: unknown) => PathProblem[] {
  return (value) => {
    const first = unfit(value, most);
    if (first) return [first];
    if (valid(value)) return [];
    // What the tag itself is wrong with is told at the tag.
    return (valid.errors ?? [])
      .filter(({ keyword }) => keyword !== "discriminator")
      .slice(0, mostProblems)
      .map(described);
  };
}

/** A checker for one compiled schema: the value with its type, or what is wrong with it and where. */
export function checker<T>(valid: Valid, most = mostValues): (value: unknown) => Result<T> {
  const problemsOf = pathChecker(valid, most);
  return (value) => {
    const problems = problemsOf(value);
    if (problems.length === 0) return success(value as T);
    return failure(
      problems
        .slice(0, 5)
        .map(({ path, message }) => `${path}: ${inEnglish(message)}`)
        .join("; "),
    );
  };
}
