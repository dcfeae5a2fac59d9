import { inEnglish, type Phrase } from "../text";

const isPhrase = (x: object): x is Exclude<Phrase, string> =>
  ("message" in x &&
    typeof x.message === "string" &&
    Object.keys(x).every((k) => k === "message" || k === "values")) ||
  ("unit" in x && Object.keys(x).length === 1) ||
  ("first" in x && "of" in x && Object.keys(x).length === 2) ||
  ("joined" in x && "by" in x);

/** A value with every phrase in it written out in American English, as a test names it. */
export function plain(value: unknown): unknown {
  if (typeof value !== "object" || value === null) return value;
  if (Array.isArray(value)) return value.map(plain);
  if (isPhrase(value)) return inEnglish(value);
  if (value instanceof Map) return new Map([...value].map(([k, v]) => [plain(k), plain(v)] as const));
  if (value instanceof Set) return new Set([...value].map(plain));
  if (Object.getPrototypeOf(value) !== Object.prototype) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, plain(v)]));
}
