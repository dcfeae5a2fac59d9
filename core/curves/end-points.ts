import { type CurvePoint, firstDerivative, secondDerivative, type Slope } from "./points";

/* Equivalence points from the shape of a curve alone. */

/** A jump: the steepest place and how far off it may be, mL. */
export interface Jump {
  readonly volume: number;
  /** Half of the distance of the points on either side: nothing finer was looked at. */
  readonly half: number;
  /** Slope there, per mL. */
  readonly slope: number;
}

/** A maximum counts as a jump where the curve is this many times flatter on both sides of it. Common practice, no source. */
const steeper = 2;

/** A jump takes more than this part of all that the curve rises: less is the noise of a flat piece. Common practice, no source. */
const leastRise = 0.05;

/** The top of the parabola through a maximum and its neighbors; the maximum itself at an end. */
function top(before: Slope | undefined, at: Slope, after: Slope | undefined): number {
  if (!before || !after) return at.volume;
  const [p, q] = [at.volume - before.volume, after.volume - at.volume];
  const [a, b] = [(at.slope - before.slope) / p, (after.slope - at.slope) / q];
  const bend = (b - a) / (p + q);
  return bend < 0 ? (at.volume + before.volume) / 2 - a / (2 * bend) : at.volume;
}

/**
 * The jumps of a curve, in the order of their volumes, each with its steepest place. Points are in order; a curve may rise or fall. A curve
 * that stops within its jump, or begins there, has none.
 */
export function jumpsOf(points: readonly CurvePoint[]): Jump[] {
  const slopes = firstDerivative(points).map(({ volume, slope }) => ({ volume, slope: Math.abs(slope) }));
  const whole = Math.abs((points.at(-1)?.value ?? 0) - (points[0]?.value ?? 0));
  const jumps: Jump[] = [];
  let from = 0;
  while (from < slopes.length) {
    // From one flat place up to a maximum and down again.
    let flattest = from;
    let steepest = from;
    let i = from;
    for (; i < slopes.length; i++) {
      const { slope } = slopes[i]!;
      const [low, high] = [slopes[flattest]!.slope, slopes[steepest]!.slope];
      if (slope > high) steepest = i;
      else if (high < steeper * low && slope < low) flattest = steepest = i;
      else if (slope * steeper < high && high >= steeper * low) break;
    }
    if (i >= slopes.length) break;
    const at = slopes[steepest]!;
    const rise = Math.abs(points[i + 1]!.value - points[flattest]!.value);
    const half = (points[steepest + 1]!.volume - points[steepest]!.volume) / 2;
    const volume = top(slopes[steepest - 1], at, slopes[steepest + 1]);
    if (rise > leastRise * whole) jumps.push({ volume, half, slope: at.slope });
    from = i;
  }
  return jumps;
}

/** Where the second derivative goes through zero at a jump, by the straight line between its values on both sides; null where it does not. */
export function zeroOfSecond(points: readonly CurvePoint[], jump: Jump): number | null {
  const rises = (points.at(-1)?.value ?? 0) > (points[0]?.value ?? 0);
  const bends = secondDerivative(points).map(({ volume, slope }) => ({
    volume,
    slope: rises ? slope : -slope,
  }));
  const zeros = bends.slice(1).flatMap((b, i) => {
    const a = bends[i]!;
    if (!(a.slope > 0 && b.slope <= 0)) return [];
    return [a.volume + ((b.volume - a.volume) * a.slope) / (a.slope - b.slope)];
  });
  const nearest = zeros.toSorted((a, b) => Math.abs(a - jump.volume) - Math.abs(b - jump.volume))[0];
  return nearest !== undefined && Math.abs(nearest - jump.volume) <= 4 * jump.half ? nearest : null;
}
