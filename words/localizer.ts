import i18next, { type i18n } from "i18next";
import type { HouseWords } from "~/core/rules";
import { filled, type Phrase, written } from "~/core/text";
import british from "./catalogs/en-GB.json" with { type: "json" };
import { inUnitsOf } from "./units";

/** A phrase in the language and the units of a lab. */
export type Localize = (phrase: Phrase) => string;

/**
 * What a lab says otherwise than the program does. A sentence of the program has no place for a unit in its key, so that units stand
 * for themselves there; they are put in before the values are, since those may be what somebody typed.
 */
export function localizer(words: HouseWords): Localize {
  const units = (sentence: string) => inUnitsOf(sentence, words.volume);
  const language = languageOf(words);
  const catalogs = language === "en-US" ? null : catalogsOf(units);
  const sentence = (key: string, values: readonly string[]) =>
    catalogs
      ? catalogs.t(key, { lng: language, defaultValue: units(key), ...values })
      : filled(units(key), values);
  return (phrase) => (typeof phrase === "string" ? phrase : written(phrase, { sentence, unit: units }));
}

/** The language of a lab, by how it spells the volume used. */
export const languageOf = ({ titer }: HouseWords): "en-US" | "en-GB" =>
  titer === "titre" ? "en-GB" : "en-US";

/** The catalogs with their sentences in the units of a lab. Sentences that a catalog does not hold are said in American English. */
function catalogsOf(units: (sentence: string) => string): i18n {
  const translation = Object.fromEntries(
    Object.entries<string>(british).map(([key, text]) => [key, units(text)]),
  );
  const instance = i18next.createInstance({
    lng: "en-GB",
    fallbackLng: false,
    resources: { "en-GB": { translation } },
    // Keys are sentences, with their points and colons.
    keySeparator: false,
    nsSeparator: false,
    returnNull: false,
    interpolation: { prefix: "{", suffix: "}", escapeValue: false, skipOnVariables: true },
    initAsync: false,
  });
  void instance.init();
  return instance;
}
