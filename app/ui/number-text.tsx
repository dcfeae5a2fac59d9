import type { ReactNode } from "react";
import { fonts } from "../theme/theme";

/** Keeps a number and its unit on one line. */
export const unbroken = (text: string) =>
  text.replace(
    /(\d|±|near|about) (mL|cm³|L\b|g\b|mg|µg|kg|mol|mmol|meq|ppm|nm\b|%|°C|°dH|s\b|min\b|h\b|\d)/g,
    "$1\u00a0$2",
  );

const units = "mL|cm³|L|g|mg|µg|kg|mol|mmol|meq|ppm|nm|%|°C|°dH|s|min|h";
const numberWithUnit = new RegExp(`(\\S*\\d(?: ± \\S*\\d)? (?:${units})(?![A-Za-z])\\S*)`);

/** The same where the text may be long and is copied or searched: its spaces stay what they are. */
export const together = (text: string): ReactNode =>
  text.split(numberWithUnit).map((part, i) =>
    i % 2 === 1 ? (
      <span key={i} style={{ whiteSpace: "nowrap" }}>
        {part}
      </span>
    ) : (
      part
    ),
  );

/** A text as a sentence: with its period, unless it ends in one or in a question mark already. */
export const sentence = (text: string): string => (/[.?]$/.test(text) ? text : `${text}.`);

/** The label of a field, whose unit stays on the line of its last word: "Final reading, mL". */
export function labelTogether(label: string): ReactNode {
  const [, before = "", last] = /^(.*?)(\S+, \S+)$/.exec(label) ?? [];
  if (last === undefined) return label;
  return (
    <>
      {before}
      <span style={{ whiteSpace: "nowrap" }}>{last}</span>
    </>
  );
}

/** A sentence in which the numbers with decimals stand out, each beside its unit. */
export function numbersOut(text: string): ReactNode {
  return unbroken(text)
    .split(/(\d+\.\d+)/)
    .map((part, i) =>
      i % 2 === 1 ? (
        <b key={i} style={{ fontFamily: fonts.reading }}>
          {part}
        </b>
      ) : (
        part
      ),
    );
}
