import { buretteVolume, type Check, type MeasuredAt, type ReadingRules } from "../measure";
import { add, type Quantity } from "../quantity";
import { buretteDecimals, buretteText, type HouseRules } from "../rules";
import type { Field } from "./field";
import { volumeConditions } from "./glass";
import type { Difference, LedgerColumn, Read, ReadText, SimulatedHand, Texts, Typed } from "./kind";
import { pairOf, stopped } from "./pair";
import { msg, type Phrase } from "../text";

/* What is read of a burette, whatever it delivers. */

/** The two readings of a burette. */
export function buretteFields(
  symbol: string,
  rules: HouseRules,
  meniscus: "bottom" | "top",
  labels: readonly [Phrase, Phrase],
): readonly [Field, Field] {
  const { capacityMl, resolutionMl } = rules.burette;
  const words = {
    "0.001": msg`three decimals`,
    "0.01": msg`two decimals`,
    "0.02": msg`to 0.02`,
    "0.05": msg`to 0.05`,
    "0.1": msg`one decimal`,
  }[resolutionMl];
  const reading: ReadingRules = {
    instrument: msg`The burette`,
    unit: "mL",
    decimals: buretteDecimals(rules),
    step: Number(resolutionMl),
    least: 0,
    most: capacityMl,
  };
  const place = rules.burette.meniscus === "by-color" ? meniscus : rules.burette.meniscus;
  const hint = msg`${words}, ${place} of the meniscus`;
  return [
    { symbol, kind: "burette.initial", label: labels[0], unit: "mL", hint, rules: reading },
    { symbol, kind: "burette.final", label: labels[1], unit: "mL", hint, rules: reading },
  ];
}

/** The volume of one leg: between two readings of which the burette was not refilled. */
function legVolume(
  read: Read,
  leg: number,
  place: MeasuredAt,
  rules: HouseRules,
  symbol: string | undefined,
): Quantity | null {
  const [initialMl, finalMl] = [read("burette.initial", leg), read("burette.final", leg)];
  // A blank may use nothing at all: its two readings are the same.
  if (initialMl === null || finalMl === null || finalMl < initialMl) return null;
  const { capacityMl, readingHalfWidthMl } = rules.burette;
  return buretteVolume(
    {
      ...place,
      ...(leg > 1 ? { trial: `${place.trial}, leg ${leg}` } : {}),
      ...{ initialMl, finalMl, capacityMl },
      readingHalfWidthMl: Number(readingHalfWidthMl),
      ...(symbol === undefined ? {} : { symbol }),
    },
    volumeConditions(rules),
  );
}

/**
 * What a burette delivered: final minus initial reading, V = Σ (final - initial) over its legs where it was refilled midway. The
 * burette's calibration is one cause for all legs; each reading is one of its own. Null while a reading is missing.
 */
export function buretteQuantity(
  read: Read,
  place: MeasuredAt,
  rules: HouseRules,
  symbol?: string,
): Quantity | null {
  let total: Quantity | null = null;
  for (let leg = 1; leg <= (read.legs ?? 1); leg++) {
    const volume = legVolume(read, leg, place, rules, symbol);
    if (!volume) return null;
    total = total ? add(total, volume) : volume;
  }
  return total;
}

/** Readings for a volume, beginning somewhere near the top of the scale. */
export function buretteTexts(volumeMl: () => number, { rules, between }: SimulatedHand): Texts {
  const initial = buretteText(between(0, 2), rules);
  return { "burette.initial": initial, "burette.final": buretteText(Number(initial) + volumeMl(), rules) };
}

/** A burette that ran backwards cannot be; one that delivered nothing is asked about, and refused where it gives no result. */
export function buretteChecks(typed: Typed): Check[] {
  const { kind, value, text, decimals, beside, mayBeZero } = typed;
  const start = kind === "burette.maybe" ? beside("burette.initial") : null;
  if (start && value <= start.value)
    return [stopped(msg`${value.toFixed(decimals)} is not beyond the start, ${start.text}`, "order")];
  const readings = pairOf(["burette.initial", "burette.final"], typed);
  if (!readings) return [];
  const [initial, final] = readings;
  if (final < initial || (final === initial && !mayBeZero)) {
    return [
      stopped(
        msg`The final reading ${final.toFixed(decimals)} is not above the initial ${initial.toFixed(decimals)}: was the burette refilled, or are the two swapped?`,
        "order",
      ),
    ];
  }
  if (final > initial) return [];
  return [
    {
      severity: "caution",
      kind: "zero",
      message: msg`Both readings are ${text}: no titrant was used. Is that so, as for a blank?`,
    },
  ];
}

/** Final minus initial reading. */
export const buretteDifference: Difference = {
  unit: "mL",
  minuend: { kind: "burette.final", name: "final" },
  subtrahend: { kind: "burette.initial", name: "initial" },
  words: msg`the two readings`,
  soFar: null,
};

/** The columns of both readings, and of what they come to. */
export const buretteColumns = (initial: Phrase, final: Phrase, volume: Phrase): LedgerColumn[] => [
  { head: initial, kind: "burette.initial" },
  { head: final, kind: "burette.final" },
  { head: volume, kind: null },
];

/** The next trial goes on where the last one ended. */
export const carriedOn = (before: ReadText): Texts => {
  const final = before("burette.final");
  return final === null ? {} : { "burette.initial": final };
};
