import type { Catalog, Language } from "~/words/catalogs";

/* The catalogs that this page has. The server has all of them; a browser fetches the one that its lab needs. */

const here = new Map<Language, Catalog | null>([["en-US", null]]);

export const addCatalog = (language: Language, catalog: Catalog): void => void here.set(language, catalog);

/** Null for American English, which the program is written in, and for a catalog that is not here yet. */
export const catalogOf = (language: Language): Catalog | null => here.get(language) ?? null;

export const hasCatalog = (language: Language): boolean => here.has(language);

/** Fetches the catalog of a language where it is not here. */
export async function fetchCatalog(language: Language): Promise<void> {
  if (language === "en-GB" && !hasCatalog(language))
    addCatalog(language, (await import("~/words/british")).british);
}
