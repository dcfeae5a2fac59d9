import { inHouseWords, plainWords, type Words } from "~/core/rules";

/** The words of the lab, as the root of the page was told them; one lab, so one for all. */
let spoken: Pick<Words, "titer" | "volume"> = { titer: "titer", volume: "mL" };
let plain = true;

/** From now on everything that is shown is said in these words. */
export function speak(words: Pick<Words, "titer" | "volume">): void {
  spoken = words;
  plain = plainWords(words);
}

/** A text as the house says it. */
export const said = (text: string): string => (plain ? text : inHouseWords(text, spoken));

/** True while nothing has to be said differently. */
export const isPlain = (): boolean => plain;
