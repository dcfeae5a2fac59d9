import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import type { HouseWords } from "~/core/rules";
import { msg, type Phrase } from "~/core/text";
import { languageOf } from "~/words/catalogs";
import { localize } from "~/words/localize";
import { catalogOf, fetchCatalog, hasCatalog } from "./catalogs";

/**
 * What people read, in the words of the lab: say`Trials ${a} and ${b} agree` says a sentence of the screen, say(verdict.reason) one of
 * the core. Values are put in as they are.
 */
export interface Localized {
  (parts: TemplateStringsArray, ...values: readonly (Phrase | number)[]): string;
  (phrase: Phrase): string;
}

export function localized(words: HouseWords): Localized {
  const say = localize(words, catalogOf(languageOf(words)));
  const isParts = (x: TemplateStringsArray | Phrase): x is TemplateStringsArray => Array.isArray(x);
  return (first: TemplateStringsArray | Phrase, ...values: readonly (Phrase | number)[]): string =>
    say(isParts(first) ? msg(first, ...values) : first);
}

export const plainWords: HouseWords = { titer: "titer", volume: "mL" };

const Text = createContext<Localized>(localized(plainWords));

/** Everything below it speaks as the lab does. */
export function TextProvider({
  words,
  children,
}: {
  readonly words: HouseWords;
  readonly children: ReactNode;
}) {
  const { titer, volume } = words;
  const language = languageOf({ titer });
  const [fetched, setFetched] = useState(0);
  // A page has its catalog before it is shown (see entry.client); another one is fetched when the house rules change. Where it cannot
  // be fetched, it stays American English.
  useEffect(() => {
    if (hasCatalog(language)) return;
    void fetchCatalog(language).then(
      () => setFetched((n) => n + 1),
      () => undefined,
    );
  }, [language]);
  // Made anew once a catalog has come.
  const { say } = useMemo(() => ({ say: localized({ titer, volume }), fetched }), [titer, volume, fetched]);
  return <Text.Provider value={say}>{children}</Text.Provider>;
}

/** How this lab says things. */
export const useSay = (): Localized => useContext(Text);
