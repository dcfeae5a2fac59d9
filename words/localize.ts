import type { HouseWords } from "~/core/rules";
import { filled, type Phrase, written } from "~/core/text";
import type { Catalog } from "./catalogs";
import { inUnitsOf } from "./units";

/** A phrase in the language and the units of a lab. */
export type Localize = (phrase: Phrase) => string;

/**
 * What a lab says otherwise than the program does, by the catalog of its language; null for American English. A sentence of the
 * program has no place for a unit in its key, so that units stand for themselves there; they are put in before the values are, since
 * those may be what somebody typed.
 */
export function localize(words: HouseWords, catalog: Catalog | null): Localize {
  const units = (sentence: string) => inUnitsOf(sentence, words.volume);
  // Sentences that a catalog does not hold are said in American English.
  const translate = catalog?.(units) ?? null;
  const sentence = (key: string, values: readonly string[]) =>
    translate ? translate(key, values, units(key)) : filled(units(key), values);
  return (phrase) => (typeof phrase === "string" ? phrase : written(phrase, { sentence, unit: units }));
}
