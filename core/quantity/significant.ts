import { decimalsFor, leadingPower, toDecimals } from "./rounding";

/** A number with the place of its last significant digit, as a power of ten: 25.60 has -2. Exact numbers have -Infinity. */
export interface Significant {
  readonly value: number;
  readonly place: number;
}

export const exactly = (value: number): Significant => ({ value, place: -Infinity });

/** The place of the first digit of a value that is written to a place: 1 for 25.60; -1 for 0.0995 to hundredths, 0.10. */
const leading = (x: number, place: number): number => {
  const power = leadingPower(x);
  return Math.round(Math.abs(x) / 10 ** place) >= 10 ** (power + 1 - place) ? power + 1 : power;
};

/** How many significant figures there are; infinitely many in an exact number, none in a bare zero. */
export const figuresOf = ({ value, place }: Significant): number =>
  value === 0 ? 0 : place === -Infinity ? Infinity : Math.max(0, leading(value, place) - place + 1);

const withFigures = (value: number, figures: number): Significant => ({
  value,
  place: Number.isFinite(figures) ? -decimalsFor(value, Math.max(1, figures)) : -Infinity,
});

/**
 * The figures of a number as typed: decimals count, zeros at the end of a whole number do not ("250" has two, "250." and
 * "250.0" do better). The text must be a plain decimal.
 */
export function significantFromText(text: string): Significant {
  const [whole = "", decimals] = text.split(".");
  if (decimals !== undefined) return { value: Number(text), place: -decimals.length };
  const zeros = /0*$/.exec(whole)?.[0].length ?? 0;
  return { value: Number(text), place: zeros === whole.length ? 0 : zeros };
}

/** The same figures of a number in another unit. */
export const scaled = (a: Significant, factor: number): Significant =>
  withFigures(a.value * factor, figuresOf(a));

/*
 * The rules for significant figures as they are taught (common practice, no source): a product or quotient has as many
 * figures as the poorest factor, a sum or difference ends at the poorest place, a logarithm has as many decimals as its
 * argument has figures, and a power of ten the reverse. Exact numbers do not limit. Rounding comes once, at the end.
 */
export const significantSum = (a: Significant, b: Significant, sign: 1 | -1 = 1): Significant => ({
  value: a.value + sign * b.value,
  place: Math.max(a.place, b.place),
});

export const significantProduct = (value: number, ...factors: readonly Significant[]): Significant =>
  withFigures(value, Math.min(...factors.map(figuresOf)));

export const significantLogarithm = (value: number, argument: Significant): Significant => ({
  value,
  place: -figuresOf(argument),
});

export const significantPower = (value: number, exponent: Significant): Significant =>
  withFigures(value, Math.max(1, -exponent.place));

/** The number written to its last significant place. */
export const showSignificant = ({ value, place }: Significant): string =>
  toDecimals(value, Number.isFinite(place) ? -place : decimalsFor(value, 6));
