import { joined, msg, type Phrase } from "./message";

const small = [
  msg`no`,
  msg`one`,
  msg`two`,
  msg`three`,
  msg`four`,
  msg`five`,
  msg`six`,
  msg`seven`,
  msg`eight`,
  msg`nine`,
  msg`ten`,
  msg`eleven`,
  msg`twelve`,
];

/** A count in words up to twelve, in digits beyond. */
export const countWord = (n: number): Phrase => small[n] ?? String(n);

/** "1", "1 and 2", "1, 2 and 3". */
export function listed(items: readonly Phrase[]): Phrase {
  const [first, ...others] = items;
  if (first === undefined) return "";
  const last = others.pop();
  return last === undefined ? first : msg`${joined([first, ...others], ", ")} and ${last}`;
}

/** A number as it was typed, with a point for a decimal comma. */
export const withPoint = (typed: string | undefined): string => (typed ?? "").trim().replace(",", ".");

/** Where a reading came from, said behind it; nothing for one that was typed. */
export const sourceWords = {
  typed: "",
  instrument: msg`, by instrument`,
  imported: msg`, from a file`,
  paper: msg`, from paper`,
} as const;

const things = {
  trial: [msg`trial`, msg`trials`],
  reading: [msg`reading`, msg`readings`],
  run: [msg`run`, msg`runs`],
  change: [msg`change`, msg`changes`],
  line: [msg`line`, msg`lines`],
  method: [msg`method`, msg`methods`],
  bottle: [msg`bottle`, msg`bottles`],
  other: [msg`other`, msg`others`],
} as const;

/** "one trial", "two trials". */
export const counted = (n: number, thing: keyof typeof things): Phrase =>
  msg`${countWord(n)} ${things[thing][n === 1 ? 0 : 1]}`;

/** Sentences behind each other, without those that say nothing. */
export const sentences = (texts: readonly Phrase[]): Phrase =>
  joined(
    texts.filter((text) => text !== ""),
    " ",
  );
