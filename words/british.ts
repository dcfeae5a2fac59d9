import i18next from "i18next";
import { addCatalog } from "./catalogs";
import british from "./catalogs/en-GB.json" with { type: "json" };

addCatalog("en-GB", (inUnits) => {
  const translation = Object.fromEntries(
    Object.entries<string>(british).map(([key, text]) => [key, inUnits(text)]),
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
});
