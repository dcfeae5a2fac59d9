import { toDecimals, withUnit } from "../quantity";
import type { Check } from "./reading";
import { msg, type Phrase, unitText } from "../text";

/** The expected reading, and how far from it a reading is still plausible; both in the reading's unit. */
export interface Expected {
  readonly value: number;
  /** Other values that are as good: what each of several trials names. */
  readonly others?: readonly number[];
  readonly within: number;
  /** Who says so, as the message puts it: "the trials before", "the first weighing". */
  readonly by: Phrase;
  /** The values as a message names them, where that is not the first alone: "20.00 or 21.20". */
  readonly near?: Phrase;
}

interface Candidate {
  readonly kind: NonNullable<Check["kind"]>;
  readonly value: number;
  readonly question: (meant: Phrase) => Phrase;
}

/** Values that differ from the typed one by two neighboring digits in the other order. */
function swappedDigits(text: string): number[] {
  return [...text].slice(0, -1).flatMap((digit, i) => {
    // A pair may stand on both sides of the point.
    const j = text.charAt(i + 1) === "." ? i + 2 : i + 1;
    const next = text.charAt(j);
    if (!/\d/.test(digit) || !/\d/.test(next) || digit === next) return [];
    const turned = [...text];
    turned[i] = next;
    turned[j] = digit;
    return [Number(turned.join(""))];
  });
}

function candidates(text: string, value: number, unit: string, decimals: number): Candidate[] {
  const moved = (by: number): Candidate => ({
    kind: "off by a mark",
    value: value + by,
    question: (meant) => msg`Just ${withUnit(Math.abs(by).toFixed(2), unit)} off? Is ${meant} meant?`,
  });
  return [
    ...swappedDigits(text).map((turned): Candidate => ({
      kind: "swapped digits",
      value: turned,
      question: (meant) => msg`Two digits swapped? Is ${meant} meant?`,
    })),
    ...[-10, -1, 1, 10].map(moved),
    ...[10, 0.1].map((factor): Candidate => ({
      kind: "dropped digit",
      value: Number((value * factor).toFixed(decimals)),
      question: (meant) =>
        factor > 1
          ? msg`A digit dropped, or the point one place off? Is ${meant} meant?`
          : msg`A digit too many, or the point one place off? Is ${meant} meant?`,
    })),
  ];
}

/**
 * What a reading looks like that came out far from where it should: two digits swapped, exactly 1.00 or 10.00 off, a digit
 * dropped, with the value that was probably meant; or just far off. Nothing for one that lies within. Always a caution: the
 * reading may be right and the expectation wrong.
 */
export function slipChecks(text: string, unit: string, decimals: number, expected: Expected | null): Check[] {
  const value = Number(text);
  if (!expected || !Number.isFinite(value)) return [];
  const places = [expected.value, ...(expected.others ?? [])];
  const distance = (of: number) => Math.min(...places.map((place) => Math.abs(of - place)));
  if (distance(value) <= expected.within + 1e-9) return [];
  const likely = candidates(text, value, unit, decimals)
    .filter((c) => c.value >= 0 && distance(c.value) <= expected.within)
    .sort((a, b) => distance(a.value) - distance(b.value))[0];
  const near = expected.near ?? toDecimals(expected.value, Math.min(decimals, 2));
  const far = msg`Based on ${expected.by}, expect about ${near} ${unitText(unit)}.`;
  if (likely) {
    const meant = likely.value.toFixed(decimals);
    return [
      {
        severity: "caution",
        kind: likely.kind,
        message: msg`${far} ${likely.question(meant)}`,
        proposal: meant,
      },
    ];
  }
  return [
    { severity: "caution", kind: "jump", message: msg`${far} ${text} is far from that: is it correct?` },
  ];
}

/**
 * True for a caution that is asked about before the reading is kept: what was meant is known, it lies far from where it should,
 * no piece of glass measures it, or nothing was used.
 */
export const asksBack = ({ proposal, kind }: Check): boolean =>
  proposal !== undefined || kind === "jump" || kind === "glass" || kind === "zero";

/** The same digits as in another trial: possible, but often a reading that was copied or not made anew. */
export function sameReadingCheck(
  text: string,
  unit: string,
  others: readonly { readonly name: Phrase; readonly text: string }[],
): Check[] {
  const twin = others.find((other) => other.text === text);
  if (!twin) return [];
  return [
    {
      severity: "caution",
      kind: "same reading",
      message: msg`${withUnit(text, unit)} to the last digit, as in ${twin.name}: was it read again?`,
    },
  ];
}

/** Two weighings of one thing that differ by more than the balance's own scatter (three display steps and its linearity). */
export function repeatCheck(
  text: string,
  first: string,
  balance: { readonly readabilityG: number; readonly linearityG: number },
): Check[] {
  const allowed = 3 * balance.readabilityG + balance.linearityG;
  const difference = Math.abs(Number(text) - Number(first));
  if (difference <= allowed + 1e-12) return [];
  const decimals = first.split(".")[1]?.length ?? 0;
  const slip = slipChecks(text, "g", decimals, {
    value: Number(first),
    within: allowed,
    by: msg`the first weighing`,
  });
  return slip.map((check) => ({
    ...check,
    kind: check.kind === "jump" ? "repeat" : (check.kind ?? "repeat"),
  }));
}
