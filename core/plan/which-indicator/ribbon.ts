import { inEnglish, type Phrase, capitalized, msg } from "../../text";
import type { IndicatorError } from "../../equilibria";
import { type RatedIndicator, tolerableError } from "./theory";

/** A number with its sign, without one where it rounds to nothing. */
const signed = (x: number, decimals: number): string => {
  const text = Math.abs(x).toFixed(decimals);
  return Number(text) === 0 ? text : `${x < 0 ? "−" : "+"}${text}`;
};

export const millilitersOff = ({ errorMl }: Pick<IndicatorError, "errorMl">): Phrase =>
  msg`${signed(errorMl, 2)} mL`;

export const percentOff = ({ relative }: Pick<IndicatorError, "relative">): string =>
  `${signed(100 * relative, Math.abs(relative) < 0.001 ? 2 : Math.abs(relative) < 0.1 ? 1 : 0)} %`;

/** How late or early an indicator changes, with its part of the titer. */
export const errorWords = (rated: IndicatorError): Phrase =>
  msg`${millilitersOff(rated)} (${percentOff(rated)})`;

/** The indicator that a method names, among those that are rated; the first named where it names several. */
export function namedIndicator(rated: readonly RatedIndicator[], named: string): RatedIndicator | null {
  const text = named.toLowerCase();
  const placed = rated.flatMap((one) => {
    const place = text.indexOf(inEnglish(one.indicator.name).toLowerCase());
    return place < 0 ? [] : [{ one, place }];
  });
  return placed.toSorted((a, b) => a.place - b.place)[0]?.one ?? null;
}

export interface IndicatorVerdict {
  readonly text: Phrase;
  /** True where the indicator spoils the titration. */
  readonly poor: boolean;
}

/** What is to be said of the indicator that a method uses. */
export function verdictOnIndicator(rated: readonly RatedIndicator[], named: string): IndicatorVerdict {
  const [best] = rated;
  const used = namedIndicator(rated, named);
  if (!best) return { text: "", poor: false };
  const advice =
    best.suits || Math.abs(best.relative) <= tolerableError
      ? msg`${capitalized(best.indicator.name)} comes nearest: ${errorWords(best)}.`
      : msg`None of these changes near it: take the whole curve with a meter.`;
  if (!used) return { text: advice, poor: false };
  const name = capitalized(used.indicator.name);
  const poor = Math.abs(used.relative) > tolerableError && !used.suits;
  if (used.suits)
    return {
      text: msg`${name}, which this method uses, suits: it is off by ${errorWords(used)}.`,
      poor,
    };
  if (used === best)
    return {
      text: msg`${name}, which this method uses, comes nearest, and is off by ${errorWords(used)}.`,
      poor,
    };
  return {
    text:
      used.errorMl < 0
        ? msg`${name}, which this method uses, changes early: ${errorWords(used)}. ${advice}`
        : msg`${name}, which this method uses, changes late: ${errorWords(used)}. ${advice}`,
    poor,
  };
}
