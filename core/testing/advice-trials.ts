import { type CurvePoint, jumpsOf, nextAddition } from "../curves";
import { type Mixture, room, titrationCurve } from "../equilibria";
import { randomStream } from "../montecarlo";

/* How well the advice on what to add next finds an end, beside equal steps, over simulated acids. */

const advice = { dropMl: 0.05, largestMl: 2, until: 11 };
const base: Mixture = { acids: [], ions: [{ charge: 1, concentration: 0.1 }] };

export interface AdviceTrials {
  /** Medians: points that were taken, and how far the steepest place of them lies from the end, mL. */
  readonly points: number;
  readonly off: number;
  /** The farthest of all, mL. */
  readonly farthest: number;
  /** The same by equal steps of 0.5 mL. */
  readonly equalPoints: number;
  readonly equalOff: number;
}

const median = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;

/** Weak acids of 0.02 to 0.06 mol/L with pKa 2.5 to 7.5, 50 mL by 0.1 mol/L base, on a meter that scatters by 0.01. */
export function adviceTrials(count: number, seed = 12): AdviceTrials {
  const random = randomStream(seed);
  const trials = Array.from({ length: count }, () => {
    const pKa = 2.5 + 5 * random.uniform();
    const concentration = 0.02 + 0.04 * random.uniform();
    const flask: Mixture = {
      acids: [{ acid: { charge: 0, steps: [{ pKa }] }, concentration }],
      ions: [],
    };
    const end = (concentration * 50) / 0.1;
    const read = (volume: number): CurvePoint => {
      const [solved] = titrationCurve({ flask, flaskMl: 50, titrant: base }, [volume], { ...room, pKw: 14 });
      return { volume, value: solved!.pH + 0.01 * random.normal() };
    };
    const points = [read(0)];
    for (
      let next = nextAddition(points, advice);
      next.do === "add" && points.length < 120;
      next = nextAddition(points, advice)
    )
      points.push(read(points.at(-1)!.volume + next.ml));
    const equal = Array.from({ length: Math.round((1.3 * end) / 0.5) + 1 }, (_, i) => read(0.5 * i));
    const off = (of: readonly CurvePoint[]) => {
      const [steepest] = jumpsOf(of).toSorted((a, b) => b.slope - a.slope);
      return steepest ? Math.abs(steepest.volume - end) : Infinity;
    };
    return { points: points.length, off: off(points), equalPoints: equal.length, equalOff: off(equal) };
  });
  return {
    points: median(trials.map((t) => t.points)),
    off: median(trials.map((t) => t.off)),
    farthest: Math.max(...trials.map((t) => t.off)),
    equalPoints: median(trials.map((t) => t.equalPoints)),
    equalOff: median(trials.map((t) => t.equalOff)),
  };
}
