import type { HouseWords } from "~/core/rules";

export type Language = "en-US" | "en-GB";

/** The language of a lab, by how it spells the volume used. */
export const languageOf = ({ titer }: Pick<HouseWords, "titer">): Language =>
  titer === "titre" ? "en-GB" : "en-US";

/** A sentence of the program in another language, with its values put in; `otherwise` where the catalog does not hold it. */
export type Translate = (key: string, values: readonly string[], otherwise: string) => string;

/** A language other than American English, which the program itself is written in; its sentences get the units of a lab. */
export type Catalog = (inUnits: (sentence: string) => string) => Translate;
