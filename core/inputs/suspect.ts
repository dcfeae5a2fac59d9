import { uncapitalized } from "../text";
import type { InputBase, Suspect } from "./kind";

/* What may be wrong with an input where a result cannot be. */

const weaker = { high: "lower than stated", low: "higher than stated", either: "not as stated" } as const;

/** What somebody states, or an instrument shows: it may not be so. */
export const statedSuspect = ({ label }: InputBase, often: number, advice = ""): Suspect => ({
  often,
  words: (side) => `${uncapitalized(label)}: it may be ${weaker[side]}${advice}`,
});

/** A volume that is measured out: another one may have been taken. */
export const volumeSuspect = ({ label }: InputBase, often: number): Suspect => ({
  often,
  words: (side) =>
    `${uncapitalized(label)}: ${{ high: "less", low: "more", either: "another volume" }[side]} may have been taken than is written`,
});
