import { room } from "../equilibria";
import { hardlyAnySupport } from "../statistics";
import { type Jump, jumpsOf, zeroOfSecond } from "./end-points";
import { type AcidFit, type AcidFitSetting, type AcidStart, fitAcid } from "./fit-acid";
import {
  type GranLine,
  type GranSetting,
  granBeyond,
  granBeyondCarbonated,
  granOfStrong,
  granOfWeak,
} from "./gran";
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
  /** True where it is known that what is titrated is a strong acid or base, whatever jumps carbonate adds. */
  readonly strong?: boolean;
  /** True where strong acid or base may be there beside what is titrated, as in a mixture: the ends stand for one proton each then. */
  readonly mixture?: boolean;
  /** Whether the fit asks what the electrode may be off by a constant, and what carbonate the base may hold. */
  readonly offset?: boolean;
  readonly carbonate?: boolean;
  /** False where the whole curve is not to be fitted: that takes a while. */
  readonly fits?: boolean;
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
/** The same of a strong acid, whose line is straight from the start. */
const granFromOfStrong = 0.1;
/** Beyond a jump, from and to so many parts of the way to it. Common practice, no source. */
const [beyondFrom, beyondTo] = [1.03, 1.6];
/** An acid whose H+ is free for this part at the start counts as a strong one. Common practice, no source. */
const strongPart = 0.8;
/** A curve is fitted with up to so many protons. */
const mostProtons = 3;
/** A line through fewer points than these tells nothing of its own ±. */
const leastOnLine = 4;
/** Constants are not told from a strong acid's below this. */
const leastPKa = 1;

/** Gran's line beyond the last jump; that of a base with carbonate where the method asks for a strong acid, whose line before the jump is known. */
const lineBeyond = (points: readonly CurvePoint[], setting: CurveSetting, before: GranLine | null) =>
  setting.strong && before
    ? granBeyondCarbonated(points, setting, before.volume)
    : granBeyond(points, setting);

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

/** The start where each end stands for one proton, and the first one for what else is there too. */
function startOfMixture(ends: readonly ReadEnd[], { flaskMl, titrant, pKw }: GranSetting): AcidStart | null {
  const [before, last] = ends.slice(-2).map(({ jump }) => jump.volume);
  if (before === undefined || last === undefined) return null;
  const perMl = titrant / flaskMl;
  const each = last - before;
  const pKas = ends.map(({ halfWay }, i) => halfWay ?? (i === 0 ? pKw / 4 : pKw / 2));
  return { concentration: perMl * each, pKas, strong: perMl * (last - ends.length * each) };
}

/** Starts of a fit with so many protons; null where the jumps do not go with that. */
function startOf(
  ends: readonly ReadEnd[],
  protons: number,
  setting: GranSetting & { readonly mixture?: boolean },
): AcidStart | null {
  const { flaskMl, titrant } = setting;
  if (setting.mixture) return startOfMixture(ends, setting);
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

/** Gran's line before an end; null where it has too few points, or none leads there: in a mixture some of it was a salt from the start. */
function lineBefore(
  own: readonly CurvePoint[],
  way: number,
  isFirst: boolean,
  strong: boolean,
  here: GranSetting & { readonly mixture?: boolean },
): GranLine | null {
  const isStrong = strong && isFirst;
  const beginsAt = (isStrong ? granFromOfStrong : granFrom) * way;
  const between = own.filter(({ volume }) => volume >= beginsAt && volume <= granTo * way);
  if (between.length < leastOnLine || (here.mixture && isFirst)) return null;
  return isStrong ? granOfStrong(between, here) : granOfWeak(between, here, "corrected");
}

/** The ends of a curve that rises, with what each tells. */
function endsOf(
  points: readonly CurvePoint[],
  jumps: readonly Jump[],
  strong: boolean,
  setting: CurveSetting,
) {
  const { flaskMl, mixture = false } = setting;
  const last = jumps.at(-1)?.volume ?? NaN;
  const after = points.filter(({ volume }) => volume >= beyondFrom * last && volume <= beyondTo * last);
  let firstLine: GranLine | null = null;
  return jumps.map((jump, i): ReadEnd => {
    const from = jumps[i - 1]?.volume ?? 0;
    const way = jump.volume - from;
    const here = { ...setting, flaskMl: flaskMl + from };
    const own = shifted(points, from);
    const line = lineBefore(own, way, i === 0, strong, here);
    if (i === 0) firstLine = line;
    const isLast = i === jumps.length - 1;
    return {
      jump,
      second: zeroOfSecond(points, jump),
      before: line && { ...line, volume: line.volume + from },
      beyond: isLast && after.length >= leastOnLine ? lineBeyond(after, setting, firstLine) : null,
      halfWay: strong || (mixture && i === 0) ? null : halfWayOf(own, way, here),
    };
  });
}

/** How the whole curve is fitted. */
const fitSettingOf = (setting: CurveSetting): AcidFitSetting => {
  const { flaskMl, titrant, pKw, uPH, uMl, mixture = false, offset = false, carbonate = false } = setting;
  return {
    ...{ flaskMl, base: titrant, uPH, uMl, strong: mixture, offset, carbonate },
    setting: { ...room, pKw },
  };
};

export const criterionOf = ({ fit }: ReadFit): number => fit.aicc ?? Infinity;

/**
 * The fit that is taken first: as few protons as have any support, since one more constant describes the scatter of the points too, and by
 * chance a little better. The others follow by their criterion.
 */
function takenFirst(fits: readonly ReadFit[]): ReadFit[] {
  const least = Math.min(...fits.map(criterionOf));
  const first = fits.find((one) => criterionOf(one) - least <= hardlyAnySupport);
  const others = fits.filter((one) => one !== first);
  return [...(first ? [first] : []), ...others.toSorted((a, b) => criterionOf(a) - criterionOf(b))];
}

/** Fits with as many protons as there are ends and more, the one that is taken first, until one more makes it no better. */
function fitsOf(points: readonly CurvePoint[], ends: readonly ReadEnd[], setting: CurveSetting): ReadFit[] {
  const { pKw, mixture = false } = setting;
  const fitSetting = fitSettingOf(setting);
  const fits: ReadFit[] = [];
  const most = mixture ? ends.length : mostProtons;
  for (let protons = Math.max(1, ends.length); protons <= most; protons++) {
    const start = startOf(ends, protons, setting);
    const fit = start && fitAcid(points, fitSetting, start);
    if (!fit?.pKas.every(({ value }) => value > leastPKa && value < pKw)) continue;
    fits.push({ protons, fit });
    const [before, last] = fits.slice(-2).map(criterionOf);
    if (last !== undefined && before !== undefined && last > before) break;
  }
  return takenFirst(fits);
}

/** Whether all of an acid is free at the start: one jump, and as much H+ as it takes base. */
function isStrongAcid(
  [first]: readonly CurvePoint[],
  jumps: readonly Jump[],
  { flaskMl, titrant }: CurveSetting,
) {
  const [jump] = jumps;
  if (!first || !jump || jumps.length > 1 || first.volume >= 0.05 * jump.volume) return false;
  return (10 ** -first.value * flaskMl) / (titrant * jump.volume) > strongPart;
}

/**
 * Reads a pH curve of an acid by a strong base, or of a base by a strong acid: jumps, Gran's lines, constants half way and by fits of the
 * whole curve with one proton, two and three. A curve that stops before its jump has no end.
 */
export function readCurve(read: readonly CurvePoint[], setting: CurveSetting): CurveReading {
  const given = inOrder(read);
  const { pKw } = setting;
  const byBase = (given.at(-1)?.value ?? 0) >= (given[0]?.value ?? 0);
  // A base titrated with an acid is computed as an acid titrated with a base, with pKw - pH in place of pH.
  const points = byBase ? given : given.map(({ volume, value }) => ({ volume, value: pKw - value }));
  const jumps = jumpsOf(points);
  const strong = setting.strong ?? isStrongAcid(points, jumps, setting);
  const ends = endsOf(points, jumps, strong, setting);
  // An acid in the burette takes up no carbon dioxide.
  const asked = byBase ? setting : { ...setting, carbonate: false };
  const fits = strong || setting.fits === false ? [] : fitsOf(points, ends, asked);
  return byBase
    ? { byBase, strong, ends, fits }
    : {
        ...{ byBase, strong },
        ends: ends.map((end) => endAsOfBase(end, pKw)),
        fits: fits.map((one) => fitAsOfBase(one, pKw)),
      };
}

/**
 * A fit of a curve made anew from where one was found: for points that were drawn from it. In the direction of the curve, as `readCurve` has it;
 * null where the points do not determine it.
 */
export function fitAgain(
  points: readonly CurvePoint[],
  { byBase }: CurveReading,
  { fit }: ReadFit,
  setting: CurveSetting,
) {
  const { pKw } = setting;
  const turned = byBase ? points : points.map(({ volume, value }) => ({ volume, value: pKw - value }));
  const pKas = fit.pKas.map(({ value }) => (byBase ? value : pKw - value));
  const again = fitAcid(turned, fitSettingOf(byBase ? setting : { ...setting, carbonate: false }), {
    concentration: fit.concentration.value,
    pKas,
    ...(fit.strong ? { strong: fit.strong.value } : {}),
  });
  if (!again) return null;
  return {
    concentration: again.concentration.value,
    strong: again.strong?.value ?? 0,
    pKas: again.pKas.map(({ value }) => (byBase ? value : pKw - value)),
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
    offset: fit.offset && { ...fit.offset, value: -fit.offset.value },
    residuals: fit.residuals.map((r) => -r),
  },
});
