import { bestFit, criterionOf, type CurvePoint, type NextAddition } from "../../curves";
import { type CurveInput, meterOf } from "../../inputs";
import type { Check } from "../../measure";
import type { CurveStage } from "../../method";
import { dropsPerMl, type HouseRules } from "../../rules";
import { toSignificant } from "../../quantity";
import { msg, type Phrase } from "../../text";
import type { CurveEnd } from "../shared/evaluation";
import { type PointsRead, readerOf } from "./meters";

interface Looked {
  readonly input: CurveInput;
  readonly points: readonly CurvePoint[];
  readonly read: PointsRead;
  readonly ends: readonly CurveEnd[];
  readonly next: NextAddition;
  readonly rules: HouseRules;
  readonly curve: CurveStage["curve"];
  /** The number of protons that somebody stated. */
  readonly protons: number | null;
}

const caution = (message: Phrase): Check => ({ severity: "caution", message });

/** A jump is stepped over where its two points lie this many drops apart. Common practice, no source. */
const dropsApart = 5;

/** Points that turn back by more than this many standard deviations of the meter are noise, or a wrong reading. Common practice, no source. */
const turnsBack = 6;

/** Jumps that were stepped over, with what is left to be had. */
function steppedOver({ read, points, rules }: Looked): Check[] {
  const drop = 1 / Number(dropsPerMl(rules));
  return (read.reading?.ends ?? []).flatMap(({ jump, before, beyond }): Check[] => {
    if (2 * jump.half <= dropsApart * drop + 1e-9) return [];
    const above = points.find(({ volume }) => volume >= jump.volume);
    const below = points.findLast(({ volume }) => volume <= jump.volume);
    if (!above || !below || above === below) return [];
    const left =
      before || beyond || bestFit(read.reading!)
        ? msg`Lines and the fit through the other points still tell the end`
        : msg`Take the curve again, in drops there`;
    return [
      caution(
        msg`The jump was stepped over between ${below.volume.toFixed(2)} and ${above.volume.toFixed(2)} mL. ${left}.`,
      ),
    ];
  });
}

/** A curve that goes back and forth by more than the meter scatters. */
function turning({ points, read, input, curve }: Looked, scatter: number): Check[] {
  if (curve.until === undefined || points.length < 5 || !read.reading) return [];
  const sign = read.reading.byBase ? 1 : -1;
  const odd = points
    .slice(1)
    .filter(({ value }, i) => sign * (value - points[i]!.value) < -turnsBack * scatter);
  const [first] = odd;
  if (!first) return [];
  const { label } = meterOf(input);
  return [
    caution(
      odd.length > 2
        ? msg`${label} jumps about: derivatives mean little here. Look at them smoothed beneath the curve, or take the fit; what was read stays as it is`
        : msg`${label} turns back at ${first.volume.toFixed(2)} mL, by more than the meter scatters: a wrong reading? Strike it out, with a reason`,
    ),
  ];
}

/** Constants that the points do not tell apart. */
function untold({ read }: Looked): Check[] {
  const best = read.reading && bestFit(read.reading);
  const wide = best?.fit.pKas.filter(({ u }) => u > 0.3) ?? [];
  if (!best || wide.length === 0) return [];
  return [
    caution(
      msg`The points do not tell the constants apart: pKa is known to ± ${toSignificant(2 * Math.max(...wide.map(({ u }) => u)), 1)} only`,
    ),
  ];
}

/** Fewer ends than the method asks for, on a curve that is whole. */
function missingEnds({ ends, read, next }: Looked): Check[] {
  if (next.do !== "stop" || ends.every(({ taken }) => taken)) return [];
  const count = read.ends.length;
  return [
    caution(
      count === 0
        ? msg`The curve shows no jump: nothing can be computed from it`
        : msg`The method needs ${new Set(ends.map(({ symbol }) => symbol)).size} equivalence points, and the curve shows ${count}`,
    ),
  ];
}

/** A whole curve that no fit describes does not tell how many protons its jumps stand for. */
function untoldProtons({ curve, read, next, protons }: Looked): Check[] {
  if (curve.protons === undefined || protons !== null || next.do !== "stop" || !read.reading) return [];
  if (read.reading.strong || read.reading.ends.length === 0 || bestFit(read.reading)) return [];
  return [
    caution(
      msg`No fit describes the points, so the curve does not tell how many protons the jump stands for: state it, or look for a wrong point`,
    ),
  ];
}

/** A fit with more protons describes the points a little better than the one that is taken. */
function doubtedProtons({ curve, read, next, protons }: Looked): Check[] {
  const best = read.reading && bestFit(read.reading);
  if (curve.protons === undefined || protons !== null || next.do !== "stop" || !read.reading || !best)
    return [];
  const better = read.reading.fits.find((one) => criterionOf(one) < criterionOf(best));
  return better
    ? [
        caution(
          msg`${better.protons} protons describe the points a little better than ${best.protons}, by no more than chance may: the fewer are taken. State the number if it is known`,
        ),
      ]
    : [];
}

/** What should be known of a curve before its numbers are used. */
export function cautionsOfCurve(looked: Looked): Check[] {
  return [
    ...steppedOver(looked),
    ...turning(looked, readerOf(looked.input).scatter),
    ...untold(looked),
    ...missingEnds(looked),
    ...untoldProtons(looked),
    ...doubtedProtons(looked),
  ];
}
