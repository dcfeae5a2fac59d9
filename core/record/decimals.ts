import type { Decimals } from "./schema";

/** How many decimals a number has as it is written; "1.20e-3" has five. */
export function decimalsIn(text: string): number {
  const [, behind = "", exponent = "0"] = /^[+-]?\d*\.?(\d*)(?:e([+-]?\d+))?$/i.exec(text.trim()) ?? [];
  return Math.min(15, Math.max(0, behind.length - Number(exponent)));
}

/** Decimals of numbers as they are written. */
export function decimalsOf(texts: readonly string[]): Decimals {
  const each = texts.map(decimalsIn);
  const [first = 0] = each;
  return each.every((one) => one === first) ? first : each;
}

/** Numbers with the decimals with which they came; as they are where nothing was written down of that, or where they have more of them. */
export const written = (values: readonly number[], decimals?: Decimals): string[] =>
  values.map((value, i) => {
    const places = typeof decimals === "object" ? decimals[i] : decimals;
    const text = places === undefined ? String(value) : value.toFixed(places);
    return Number(text) === value ? text : String(value);
  });
