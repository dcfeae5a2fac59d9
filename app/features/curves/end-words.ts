import type { Way } from "~/core/curves";
import { msg, type Phrase } from "~/core/text";

/** Ways to an end, with what each rests on and where it is weak. */
export const waysOfEnds: Readonly<Record<Way, { readonly name: Phrase; readonly weak: Phrase }>> = {
  fit: { name: msg`whole curve fitted`, weak: msg`rests on the constants being those of one acid` },
  "gran before": {
    name: msg`Gran, before the jump`,
    weak: msg`rests on the meter’s slope; weak where two protons overlap`,
  },
  "gran beyond": { name: msg`Gran, beyond the jump`, weak: msg`carbonate in the base shifts it` },
  branches: { name: msg`two branches cross`, weak: msg`rests on both branches being straight` },
  "second derivative": {
    name: msg`second derivative, zero`,
    weak: msg`noise shifts it where points are close`,
  },
  steepest: { name: msg`steepest place`, weak: msg`no better than the points are close` },
};

/** A value with its ±, to two figures of that. */
export function withHalf(value: number, half: number): string {
  const digits = half > 0 ? Math.min(8, Math.max(0, 1 - Math.floor(Math.log10(half)))) : 3;
  return half > 0 ? `${value.toFixed(digits)} ± ${half.toFixed(digits)}` : value.toFixed(digits);
}
