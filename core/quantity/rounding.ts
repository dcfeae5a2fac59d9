/** The power of ten of the first digit of x: 1 for 25.6, -2 for 0.0995. Zero for zero. */
export function leadingPower(x: number): number {
  return x === 0 || !Number.isFinite(x) ? 0 : Math.floor(Math.log10(Math.abs(x)) + 1e-12);
}

/**
 * Decimals after the point that show `significant` digits of x once it is rounded to them; negative for tens, hundreds and so
 * on. A value that rounds up to the next power of ten has one digit more in front: 0.0995 to two figures is 0.10.
 */
export function decimalsFor(x: number, significant: number): number {
  if (x === 0 || !Number.isFinite(x)) return 0;
  const power = leadingPower(x);
  const decimals = significant - 1 - power;
  const carries = rounded(Math.abs(x), decimals) >= 10 ** (power + 1) * (1 - 1e-12);
  return carries ? decimals - 1 : decimals;
}

/** A positive number to that many decimals, halves up, free of binary dust. */
function rounded(x: number, decimals: number): number {
  const scale = 10 ** decimals;
  return Math.round(x * scale * (1 + 1e-14)) / scale;
}

/** x with that many decimals, halves away from zero, free of binary dust (0.285 gives 0.29). */
export function toDecimals(x: number, decimals: number): string {
  if (!Number.isFinite(x)) return "–";
  const text = rounded(Math.abs(x), decimals).toFixed(Math.max(0, decimals));
  return x < 0 && Number(text) !== 0 ? `−${text}` : text;
}

/** Significant figures, zeros kept: `toSignificant(0.102, 4)` is "0.1020". */
export function toSignificant(x: number, significant: number): string {
  return toDecimals(x, decimalsFor(x, significant));
}

export interface RoundedResult {
  readonly value: string;
  readonly uncertainty: string;
  readonly decimals: number;
}

/**
 * A value and its uncertainty, rounded together: the uncertainty to two digits while its three leading digits
 * are 100 to 354, to one digit from 355 to 949, and up to 1000 (two digits) from 950 on; the value to the same place.
 * Source: the rounding rule of the Particle Data Group's Review of Particle Physics, from memory.
 */
export function roundWithUncertainty(value: number, uncertainty: number): RoundedResult {
  if (!(uncertainty > 0) || !Number.isFinite(uncertainty)) {
    const decimals = decimalsFor(value, 5);
    return { value: toDecimals(value, decimals), uncertainty: "0", decimals };
  }
  const exponent = Math.floor(Math.log10(uncertainty) + 1e-12);
  const leading = Math.round((uncertainty / 10 ** exponent) * 100);
  const significant = leading < 355 ? 2 : leading < 950 ? 1 : 2;
  const decimals = significant - 1 - exponent - (leading >= 950 ? 1 : 0);
  return { value: toDecimals(value, decimals), uncertainty: toDecimals(uncertainty, decimals), decimals };
}
