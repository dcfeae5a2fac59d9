import { room } from "../equilibria";
import { type Jump, jumpsOf, zeroOfSecond } from "./end-points";
import { type AcidFit, type AcidFitSetting, fitAcid } from "./fit-acid";
import { type GranLine, type GranSetting, granBeyond, granOfStrong, granOfWeak } from "./gran";
import { type CurvePoint, inOrder } from "./points";

/* What a recorded pH curve tells: its equivalence points in several ways, its constants, how many protons there are. */

/** Standard uncertainties of the halves of intervals that are typed: a meter's as k = 2, a reading of the burette as rectangular. */
export const uncertaintiesOf = (halfPH: number, halfMl: number): Pick<CurveSetting, "uPH" | "uMl"> => ({
  uPH: halfPH / 2,
  uMl: halfMl / Math.sqrt(3),
});

/** How a curve was taken. */
export interface CurveSetting extends GranSetting {
  /** Standard uncertainty of a reading of the meter, and of a reading of the burette, mL: what scatters from point to point. */
  readonly uPH: number;
  readonly uMl: number;
}

/** An equivalence point, found in the ways that there are. */
export interface ReadEnd {
  readonly jump: Jump;
  /** Zero of the second derivative, mL. */
  readonly second: number | null;
  /** Gran's line before it; of the strong acid where `strong` says so. */
  readonly before: GranLine | null;
  /** Gran's line beyond it: of the last one alone. */
  readonly beyond: GranLine | null;
  /** pKa of the proton that is taken there, half way to it, corrected for what is free of H+ and OH-; null for a strong acid. */
  readonly halfWay: number | null;
}

/** Fits with so many protons. */
export interface ReadFit {
  readonly protons: number;
  readonly fit: AcidFit;
}

export interface CurveReading {
  /** False where an acid stands in the burette: constants are those of the base's conjugate acid then. */
  readonly byBase: boolean;
  readonly strong: boolean;
  readonly ends: readonly ReadEnd[];
  /** Those that were found, the best first, by Akaike's criterion. */
  readonly fits: readonly ReadFit[];
}

/** Of the way to a jump, this part is used for Gran's line: away from the start, where the meter is slow, and from the jump. Common practice, no source. */
const [granFrom, granTo] = [0.4, 0.97];
/** Beyond a jump, from and to so many parts of the way to it. Common practice, no source. */
const [beyondFrom, beyondTo] = [1.03, 1.6];
/** An acid whose H+ is free for this part at the start counts as a strong one. Common practice, no source. */
const strongPart = 0.8;
/** Constants are not told from a strong acid's below this. */
const leastPKa = 1;

const shifted = (points: readonly CurvePoint[], by: number): CurvePoint[] =>
  points.map(({ volume, value }) => ({ volume: volume - by, value }));

/** The pH at a volume by the straight line between its neighbors; null outside of the points. */
function valueAt(points: readonly CurvePoint[], volume: number): number | null {
  const after = points.findIndex((point) => point.volume >= volume);
  const [a, b] = [points[after - 1], points[after]];
  if (!b) return null;
  if (!a) return b.volume === volume ? b.value : null;
  return a.value + ((b.value - a.value) * (volume - a.volume)) / (b.volume - a.volume);
}

/**
 * pKa from the pH half way: pH - log V' / (Vₑ - V'), where V' is what the base has really turned into salt: what was added, and what went without
 * it since some H+ is free. Volumes count from the jump before.
 */
function halfWayOf(
  points: readonly CurvePoint[],
  end: number,
  { flaskMl, titrant, pKw }: GranSetting,
): number | null {
  const pH = valueAt(points, end / 2);
  if (pH === null) return null;
  const salt = end / 2 + ((flaskMl + end / 2) * (10 ** -pH - 10 ** (pH - pKw))) / titrant;
  return salt > 0 && salt < end ? pH - Math.log10(salt / (end - salt)) : null;
}

/** Starts of a fit with so many protons; null where the jumps do not go with that. */
function startOf(ends: readonly ReadEnd[], protons: number, { flaskMl, titrant }: GranSetting) {
  const last = ends.at(-1);
  if (!last) return null;
  const each = last.jump.volume / protons;
  // Each jump stands for as many protons as its volume says.
  const pKas = Array.from({ length: protons }, (_, i): number => {
    const end = ends.find(({ jump }) => jump.volume >= (i + 0.5) * each) ?? last;
    const before = ends[ends.indexOf(end) - 1]?.jump.volume ?? 0;
    const shared = Math.max(1, Math.round((end.jump.volume - before) / each));
    const place = i - Math.round(before / each);
    // Several in one jump lie about its middle.
    return (end.halfWay ?? 4) + (place - (shared - 1) / 2) * 1.2;
  });
  return { concentration: (titrant * each) / flaskMl, pKas };
}

/**
 * Reads a pH curve of an acid by a strong base, or of a base by a strong acid: jumps, Gran's lines, constants half way and by fits of the
 * whole curve with one proton, two and three. A curve that stops before its jump has no end.
 */
export function readCurve(read: readonly CurvePoint[], setting: CurveSetting): CurveReading {
  const given = inOrder(read);
  const byBase = (given.at(-1)?.value ?? 0) >= (given[0]?.value ?? 0);
  // A base titrated with an acid is computed as an acid titrated with a base, with pKw - pH in place of pH.
  const points = byBase ? given : given.map(({ volume, value }) => ({ volume, value: setting.pKw - value }));
  const jumps = jumpsOf(points);
  const last = jumps.at(-1)?.volume ?? NaN;
  const { flaskMl, titrant, pKw } = setting;
  const atStart = (10 ** -(points[0]?.value ?? 7) * flaskMl) / (titrant * (jumps[0]?.volume ?? NaN));
  const strong = jumps.length === 1 && (points[0]?.volume ?? 1) < 0.05 * last && atStart > strongPart;
  const ends = jumps.map((jump, i): ReadEnd => {
    const from = jumps[i - 1]?.volume ?? 0;
    const way = jump.volume - from;
    const here: GranSetting = { flaskMl: flaskMl + from, titrant, pKw };
    const own = shifted(points, from);
    const between = own.filter(({ volume }) => volume >= granFrom * way && volume <= granTo * way);
    const line = strong ? granOfStrong(between, here) : granOfWeak(between, here, "corrected");
    const after = points.filter(({ volume }) => volume >= beyondFrom * last && volume <= beyondTo * last);
    return {
      jump,
      second: zeroOfSecond(points, jump),
      before: line && { ...line, volume: line.volume + from },
      beyond: i === jumps.length - 1 ? granBeyond(after, setting) : null,
      halfWay: strong ? null : halfWayOf(own, way, here),
    };
  });
  const fitSetting: AcidFitSetting = {
    ...{ flaskMl, base: titrant, uPH: setting.uPH, uMl: setting.uMl },
    setting: { ...room, pKw },
  };
  const fits = [1, 2, 3].flatMap((protons): ReadFit[] => {
    const start = strong || protons < ends.length ? null : startOf(ends, protons, setting);
    const fit = start && fitAcid(points, fitSetting, start);
    return fit && fit.pKas.every(({ value }) => value > leastPKa && value < pKw) ? [{ protons, fit }] : [];
  });
  const sorted = fits.toSorted((a, b) => (a.fit.aicc ?? Infinity) - (b.fit.aicc ?? Infinity));
  return byBase
    ? { byBase, strong, ends, fits: sorted }
    : {
        byBase,
        strong,
        ends: ends.map((end) => endAsOfBase(end, pKw)),
        fits: sorted.map((one) => fitAsOfBase(one, pKw)),
      };
}

const endAsOfBase = (end: ReadEnd, pKw: number): ReadEnd => ({
  ...end,
  halfWay: end.halfWay === null ? null : pKw - end.halfWay,
});

const fitAsOfBase = ({ protons, fit }: ReadFit, pKw: number): ReadFit => ({
  protons,
  fit: {
    ...fit,
    pKas: fit.pKas.map(({ value, u }) => ({ value: pKw - value, u })),
    residuals: fit.residuals.map((r) => -r),
  },
});
