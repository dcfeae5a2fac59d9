import type { HouseWords } from "~/core/rules";
import { british } from "./british";
import { type Catalog, type Language, languageOf } from "./catalogs";
import { localize, type Localize } from "./localize";

export { languageOf, type Localize };

const catalogs: Record<Language, Catalog | null> = { "en-US": null, "en-GB": british };

/** How a lab says things, with all catalogs at hand: for the server and the programs of the command line. Screens fetch theirs. */
export const localizer = (words: HouseWords): Localize => localize(words, catalogs[languageOf(words)]);
