import { createContext, type ReactNode, useContext, useMemo } from "react";
import type { HouseWords } from "~/core/rules";
import { msg, type Phrase } from "~/core/text";
import { localizer } from "~/words/localizer";

/**
 * What people read, in the words of the lab: say`Trials ${a} and ${b} agree` says a sentence of the screen, say(verdict.reason) one of
 * the core. Values are put in as they are.
 */
export interface Localized {
  (parts: TemplateStringsArray, ...values: readonly (Phrase | number)[]): string;
  (phrase: Phrase): string;
}

export function localized(words: HouseWords): Localized {
  const say = localizer(words);
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
  const value = useMemo(() => localized({ titer, volume }), [titer, volume]);
  return <Text.Provider value={value}>{children}</Text.Provider>;
}

/** How this lab says things. */
export const useSay = (): Localized => useContext(Text);
