import { uncapitalized, msg, type Phrase } from "../text";
import type { InputBase, Suspect } from "./kind";

/* What may be wrong with an input where a result cannot be. */

const weaker = {
  high: msg`lower than stated`,
  low: msg`higher than stated`,
  either: msg`not as stated`,
} as const;

/** What somebody states, or an instrument shows: it may not be so. */
export const statedSuspect = ({ label }: InputBase, often: number, advice: Phrase = ""): Suspect => ({
  often,
  words: (side) => msg`${uncapitalized(label)}: it may be ${weaker[side]}${advice}`,
});

/** A volume that is measured out: another one may have been taken. */
export const volumeSuspect = ({ label }: InputBase, often: number): Suspect => ({
  often,
  words: (side) =>
    msg`${uncapitalized(label)}: ${{ high: msg`less`, low: msg`more`, either: msg`another volume` }[side]} may have been taken than is written`,
});
