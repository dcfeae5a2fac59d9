/**
 * What people read. A plain string stands as it is: a name that somebody typed, a number, a formula. Everything that the
 * program says itself is a message, so that another language or the words of a lab can be put in its place, and what
 * people typed stays as they typed it.
 */
export type Phrase = string | Message | Unit | Cased | Joined;

/** A sentence of the program. */
export interface Message {
  /** The sentence in American English, with {0}, {1}… where values stand; its key in the catalogs of `words/`. */
  readonly message: string;
  readonly values?: readonly Phrase[];
}

/** A unit as the core writes it, such as mL or mol/L. */
export interface Unit {
  readonly unit: string;
}

/** A text whose first letter is made large or small. */
export interface Cased {
  readonly first: "upper" | "lower";
  readonly of: Phrase;
}

/** Texts one after the other, with the same between each two. */
export interface Joined {
  readonly joined: readonly Phrase[];
  readonly by: string;
}

/** A message, written as it reads: msg`Trials ${a} and ${b} agree`. */
export const msg = (parts: TemplateStringsArray, ...values: readonly (Phrase | number)[]): Message => ({
  message: parts.reduce((all, part, i) => `${all}{${i - 1}}${part}`),
  ...(values.length > 0 && { values: values.map((v) => (typeof v === "number" ? String(v) : v)) }),
});

/** A unit to stand in a message or beside a number. */
export const unitText = (code: string): Unit => ({ unit: code });

/** Texts with the same between each two; nothing for none. */
export function joined(texts: readonly Phrase[], by: string): Phrase {
  const [first, ...others] = texts;
  return first === undefined ? "" : others.length === 0 ? first : { joined: texts, by };
}

/** How a text is written in one language. */
export interface Wording {
  readonly sentence: (key: string, values: readonly string[]) => string;
  readonly unit: (code: string) => string;
}

/** A text written out. */
export function written(text: Phrase, wording: Wording): string {
  if (typeof text === "string") return text;
  if ("message" in text)
    return wording.sentence(
      text.message,
      (text.values ?? []).map((v) => written(v, wording)),
    );
  if ("unit" in text) return wording.unit(text.unit);
  if ("first" in text) return cased(written(text.of, wording), text.first);
  return text.joined.map((part) => written(part, wording)).join(text.by);
}

const cased = (text: string, first: Cased["first"]): string =>
  first === "upper"
    ? text.charAt(0).toUpperCase() + text.slice(1)
    : // An acronym or a formula stays as it is.
      /^[A-Z][a-z ]/.test(text)
      ? text.charAt(0).toLowerCase() + text.slice(1)
      : text;

/** Values put in the places of a sentence. */
export const filled = (sentence: string, values: readonly string[]): string =>
  values.length === 0
    ? sentence
    : sentence.replace(/\{(\d+)\}/g, (place, i: string) => values[Number(i)] ?? place);

/** A text in American English and with the units of the core, as files and logs hold it. */
export const inEnglish = (text: Phrase): string => written(text, { sentence: filled, unit: (code) => code });

/** A text with its first letter large. */
export function capitalized(text: string): string;
export function capitalized(text: Phrase): Phrase;
export function capitalized(text: Phrase): Phrase {
  return typeof text === "string" ? cased(text, "upper") : { first: "upper", of: text };
}

/** A text with its first letter small, unless it begins with an acronym or a formula. */
export function uncapitalized(text: string): string;
export function uncapitalized(text: Phrase): Phrase;
export function uncapitalized(text: Phrase): Phrase {
  return typeof text === "string" ? cased(text, "lower") : { first: "lower", of: text };
}
