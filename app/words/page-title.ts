import type { HouseWords } from "~/core/rules";
import { type Phrase } from "~/core/text";
import { localized, plainWords } from "./text";

type Matches = readonly ({ readonly id: string; readonly loaderData?: unknown } | undefined)[];

/** The title of a page in the words of the lab, which the root of the page was told. */
export function pageTitle(matches: Matches, phrase: Phrase): { readonly title: string }[] {
  const root = matches.find((match) => match?.id === "root")?.loaderData as
    { words?: HouseWords } | undefined;
  return [{ title: `${localized(root?.words ?? plainWords)(phrase)} · Steady Bead` }];
}
