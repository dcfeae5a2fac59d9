/** A point of a titration curve: titrant added, mL, and what was read, as a pH or a potential. */
export interface CurvePoint {
  readonly volume: number;
  readonly value: number;
}

/** A derivative at a place between points. */
export interface Slope {
  readonly volume: number;
  readonly slope: number;
}

/** Points in the order of their volumes; of two at one volume the later one counts. */
export function inOrder(points: readonly CurvePoint[]): CurvePoint[] {
  const byVolume = new Map(points.map((point) => [point.volume, point]));
  return [...byVolume.values()].toSorted((a, b) => a.volume - b.volume);
}

const between = (a: Slope, b: Slope, slope: (rise: number, run: number) => number): Slope => ({
  volume: (a.volume + b.volume) / 2,
  slope: slope(b.slope - a.slope, b.volume - a.volume),
});

const differences = (values: readonly Slope[]): Slope[] =>
  values.slice(1).map((b, i) => between(values[i]!, b, (rise, run) => rise / run));

/** The first derivative half way between neighbors, per mL. Points are in order. */
export const firstDerivative = (points: readonly CurvePoint[]): Slope[] =>
  differences(points.map(({ volume, value }) => ({ volume, slope: value })));

/** The second derivative, per mL². Points are in order. */
export const secondDerivative = (points: readonly CurvePoint[]): Slope[] =>
  differences(firstDerivative(points));
