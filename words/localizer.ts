import "./british";

/* Localizers with all catalogs: for the server, the programs of the command line, and tests. */

export { languageOf } from "./catalogs";
export { type Localize, localizer } from "./localize";
