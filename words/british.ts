import i18next from "i18next";
import type { Catalog } from "./catalogs";
import sentences from "./catalogs/en-GB.json" with { type: "json" };

/** British English. */
export const british: Catalog = (inUnits) => {
  const translation = Object.fromEntries(
    Object.entries<string>(sentences).map(([key, text]) => [key, inUnits(text)]),
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
  return (key, values, otherwise) => instance.t(key, { lng: "en-GB", defaultValue: otherwise, ...values });
};
