import { strayLightFrom } from "../calibration/absorbance";
import { visiblePart } from "./visible";
import { msg, type Phrase } from "../text";

/** An absorption spectrum: wavelengths in nm, rising, and the absorbance at each. */
export interface Spectrum {
  readonly nm: readonly number[];
  readonly absorbance: readonly number[];
}

export interface ProposedWavelength {
  readonly nm: number;
  readonly absorbance: number;
  /** Over how many nm around it the absorbance stays within one percent: a flat top forgives a wheel set poorly. */
  readonly flatNm: number;
  /** True for the one to take. */
  readonly best: boolean;
  readonly reason: Phrase;
}

/** Mean over a few neighbors, so that noise makes no peaks; the window is about 5 nm wide. */
function smoothed({ nm, absorbance }: Spectrum): number[] {
  const step = ((nm.at(-1) ?? 0) - (nm[0] ?? 0)) / Math.max(1, nm.length - 1);
  const half = Math.max(1, Math.round(2.5 / Math.max(step, 1e-9)));
  const sums = [0];
  for (const a of absorbance) sums.push((sums.at(-1) ?? 0) + a);
  return absorbance.map((_, i) => {
    const reach = Math.min(half, i, absorbance.length - 1 - i);
    return ((sums[i + reach + 1] ?? 0) - (sums[i - reach] ?? 0)) / (2 * reach + 1);
  });
}

function flatAround(y: readonly number[], nm: readonly number[], top: number): number {
  const at = y[top] ?? 0;
  const near = (i: number) => Math.abs((y[i] ?? 0) - at) <= 0.01 * at;
  let [low, high] = [top, top];
  while (low > 0 && near(low - 1)) low--;
  while (high < y.length - 1 && near(high + 1)) high++;
  return (nm[high] ?? 0) - (nm[low] ?? 0);
}

/** Why one would measure there, or not. */
function reasonFor({ nm, absorbance, flatNm, best }: Omit<ProposedWavelength, "reason">): Phrase {
  const part = visiblePart(nm);
  const eye = part
    ? msg` It absorbs ${part.light} light there, so the solution looks ${part.seen}.`
    : msg` This light is invisible.`;
  const strong =
    absorbance > strayLightFrom
      ? msg` ${absorbance.toFixed(2)} is so high that stray light bends the line: scan a weaker solution.`
      : "";
  const first = best ? msg`Largest absorbance, so the most sensitive` : msg`A lower maximum`;
  const flat =
    flatNm >= 8
      ? msg`flat over ${flatNm.toFixed(0)} nm, so that a small error of the wheel does not matter`
      : msg`sharp (flat over ${flatNm.toFixed(0)} nm only): set the wavelength with care`;
  return msg`${first}; ${flat}.${eye}${strong}`;
}

/**
 * Wavelengths to measure at: the tops of the spectrum, the highest first. A top is higher than everything for 8 nm on both
 * sides and stands at least a twentieth of the highest above the floor. The end of a scan is no top, since the absorbance
 * may go on rising beyond.
 */
export function proposeWavelengths(spectrum: Spectrum): ProposedWavelength[] {
  const { nm } = spectrum;
  const y = smoothed(spectrum);
  const most = Math.max(...y);
  const floor = Math.min(...y);
  const tops: number[] = [];
  for (let i = 0; i < y.length; i++) {
    const [here, at] = [y[i] ?? 0, nm[i] ?? 0];
    if (at - (nm[0] ?? 0) < 4 || (nm.at(-1) ?? 0) - at < 4 || here - floor < 0.05 * (most - floor)) continue;
    let top = true;
    for (let j = i - 1; top && j >= 0 && at - (nm[j] ?? 0) <= 8; j--) top = (y[j] ?? 0) < here;
    for (let j = i + 1; top && j < y.length && (nm[j] ?? 0) - at <= 8; j++) top = (y[j] ?? 0) <= here;
    if (top) tops.push(i);
  }
  tops.sort((a, b) => (y[b] ?? 0) - (y[a] ?? 0));
  // A ripple on the flank of a higher top is no top of its own: the curve must dip between them.
  const apart: number[] = [];
  for (const top of tops) {
    const dips = (other: number) =>
      Math.min(...y.slice(Math.min(top, other), Math.max(top, other))) < 0.97 * (y[top] ?? 0);
    if (apart.every(dips)) apart.push(top);
  }
  return apart.map((top, rank) => {
    const proposed = {
      ...{ nm: nm[top] ?? 0, absorbance: y[top] ?? 0 },
      ...{ flatNm: flatAround(y, nm, top), best: rank === 0 },
    };
    return { ...proposed, reason: reasonFor(proposed) };
  });
}
