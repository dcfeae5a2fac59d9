import { msg, type Phrase } from "../text";
import type { CurvePoint } from "./points";

/* How much titrant to add next while a curve is taken: from the points that are there, and nothing else. */

export interface AdditionSetting {
  /** A drop of the burette, mL: nothing smaller is added. */
  readonly dropMl: number;
  /** The largest addition, mL, on the flat. */
  readonly largestMl: number;
  /** Where the curve has gone far enough, beyond its last jump: a pH, above it where the curve rises, below it where it falls. */
  readonly until: number;
  /** Where jumps are expected, by an earlier curve or by theory, mL; by the points alone where nothing is said. */
  readonly expected?: readonly number[];
}

export type NextAddition =
  | { readonly do: "add"; readonly ml: number; readonly why: Phrase }
  | { readonly do: "stop"; readonly why: Phrase };

/** Between two points the pH may change by so much where the curve bends, so that the jump is not stepped over. Common practice, no source. */
const mostChange = 0.35;

/** A curve has left its jump where it is this many times flatter than in it. Common practice, no source. */
const leftJump = 8;

/** Points that a curve needs beyond its jump. */
const pointsBeyond = 3;

interface Segment {
  readonly ml: number;
  /** Change of pH per mL, without its sign. */
  readonly slope: number;
}

const segmentsOf = (points: readonly CurvePoint[]): Segment[] =>
  points.slice(1).map((b, i) => {
    const a = points[i]!;
    return { ml: b.volume - a.volume, slope: Math.abs((b.value - a.value) / (b.volume - a.volume)) };
  });

/**
 * Where the next jump lies, by Gran's function V·10^(-pH) of the last two points carried on to zero (a base by an acid: with 10^pH); null
 * where it does not fall.
 */
function jumpAhead(points: readonly CurvePoint[], rises: boolean): number | null {
  const [a, b] = points.slice(-2);
  if (!a || !b) return null;
  const [ga, gb] = [a, b].map(({ volume, value }) => volume * 10 ** (rises ? -value : value)) as [
    number,
    number,
  ];
  // In units of the first, so that no power overflows what follows.
  const fall = (ga - gb) / (b.volume - a.volume);
  return fall > 0 ? b.volume + gb / fall : null;
}

/** To whole drops, never less than one. */
const inDrops = (ml: number, dropMl: number): number => Math.max(1, Math.round(ml / dropMl)) * dropMl;

/** Straight branches take so many points before their crossing, and so many beyond it. Common practice, no source. */
const [pointsOfBranch, pointsBehind] = [8, 6];

/**
 * What to add where two straight branches cross, as for conductance or absorbance: equal steps, the same before the crossing and behind it,
 * until there are enough points on both sides. `crossingMl` is where the branches of the points cross, null while there is none.
 */
export function nextOnBranches(
  points: readonly CurvePoint[],
  crossingMl: number | null,
  { dropMl, largestMl, expected = [] }: Pick<AdditionSetting, "dropMl" | "largestMl" | "expected">,
): NextAddition {
  const known = expected.at(-1) ?? crossingMl;
  const step = known === null ? largestMl : known / pointsOfBranch;
  const behind = crossingMl === null ? 0 : points.filter(({ volume }) => volume > crossingMl).length;
  if (behind >= pointsBehind) return { do: "stop", why: msg`Enough points on both branches` };
  const why =
    crossingMl === null
      ? msg`Equal steps: both branches are straight lines`
      : msg`Beyond the crossing: ${pointsBehind - behind} more points for the second line`;
  return { do: "add", ml: inDrops(Math.min(step, largestMl), dropMl), why };
}

/**
 * What to add after points that are in order: large additions where the curve is flat, half of what is left before a jump, drops in it, twice
 * as much each time beyond it, and an end once it is past its last jump.
 */
export function nextAddition(points: readonly CurvePoint[], setting: AdditionSetting): NextAddition {
  const { dropMl, largestMl, until, expected = [] } = setting;
  const last = points.at(-1);
  const add = (ml: number, why: Phrase): NextAddition => ({
    do: "add",
    ml: inDrops(Math.min(ml, largestMl), dropMl),
    why,
  });
  const segments = segmentsOf(points);
  const before = segments.at(-1);
  if (!last || !before)
    return add(largestMl / 2, msg`The curve begins: a first addition shows how steep it is`);
  const rises = last.value >= (points[0]?.value ?? 0);
  const steepest = segments.reduce((top, segment, i) => (segment.slope > segments[top]!.slope ? i : top), 0);
  const beyond = segments.length - 1 - steepest;
  const isPast = segments[steepest]!.slope > leftJump * before.slope && beyond >= pointsBeyond;
  if (isPast && (rises ? last.value >= until : last.value <= until))
    return { do: "stop", why: msg`The curve is past its jump and flat again: enough` };
  const previous = segments.at(-2);
  const byChange = mostChange / before.slope;
  if (previous && before.slope < previous.slope) {
    const ml = Math.min(2 * before.ml, Math.max(byChange, before.ml));
    return add(ml, msg`The curve flattens: twice as much as before`);
  }
  // What is expected counts until the points have passed it.
  const foreseen = expected.find((ml) => ml > last.volume + dropMl) ?? null;
  const jump = foreseen ?? jumpAhead(points, rises);
  const left = jump === null ? Infinity : jump - last.volume;
  const ml = Math.min(byChange, left / 2);
  if (ml < 1.5 * dropMl) return add(dropMl, msg`Near the jump: one drop, then wait for the meter`);
  if (left / 2 < byChange)
    return add(
      ml,
      foreseen === null
        ? msg`A jump lies ahead: half of what is left to it`
        : msg`A jump is expected near ${foreseen.toFixed(1)} mL: half of what is left to it`,
    );
  return add(
    ml,
    byChange < largestMl
      ? msg`The curve grows steeper: a smaller addition`
      : msg`The curve is flat: a large addition`,
  );
}
