const small = [
  "no",
  "one",
  "two",
  "three",
  "four",
  "five",
  "six",
  "seven",
  "eight",
  "nine",
  "ten",
  "eleven",
  "twelve",
];

/** A count in words up to twelve, in digits beyond. */
export const countWord = (n: number) => small[n] ?? String(n);

export const capitalized = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** "1", "1 and 2", "1, 2 and 3". */
export function listed(items: readonly string[]): string {
  if (items.length < 2) return items.join("");
  return `${items.slice(0, -1).join(", ")} and ${items.at(-1)}`;
}

/** "one trial", "two trials". */
export const counted = (n: number, one: string, many = `${one}s`) =>
  `${countWord(n)} ${n === 1 ? one : many}`;

/** The first letter made small, unless the word is an acronym or a formula. */
export const uncapitalized = (text: string) =>
  /^[A-Z][a-z ]/.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text;

/** A number as it was typed, with a point for a decimal comma. */
export const withPoint = (typed: string | undefined): string => (typed ?? "").trim().replace(",", ".");

/** Where a reading came from, said behind it; nothing for one that was typed. */
export const sourceWords = {
  typed: "",
  instrument: ", by instrument",
  imported: ", from a file",
  paper: ", from paper",
} as const;
