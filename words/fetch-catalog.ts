import { isHere } from "./catalogs";

/** Fetches the catalog of a language where it is not here. */
export async function fetchCatalog(language: string): Promise<void> {
  if (language === "en-GB" && !isHere(language)) await import("./british");
}
