import type { HouseWords } from "~/core/rules";

/* Catalogs of other ways to write what the program says. A page fetches the one that it needs; everything else has them all. */

export type Language = "en-US" | "en-GB";

/** The language of a lab, by how it spells the volume used. */
export const languageOf = ({ titer }: Pick<HouseWords, "titer">): Language =>
  titer === "titre" ? "en-GB" : "en-US";

/** A sentence of the program in another language, with its values put in; `otherwise` where the catalog does not hold it. */
export type Translate = (key: string, values: readonly string[], otherwise: string) => string;

/** Makes a catalog whose sentences are in the units of a lab. */
export type Catalog = (inUnits: (sentence: string) => string) => Translate;

const known = new Map<Language, Catalog>();

export const addCatalog = (language: Language, catalog: Catalog): void => void known.set(language, catalog);

/** The catalog of a language; null for American English, which the program itself is written in, and for one that is not here yet. */
export const catalogOf = (language: Language): Catalog | null => known.get(language) ?? null;

export const isHere = (language: Language): boolean => language === "en-US" || known.has(language);
