import { leastSquares } from "../calibration";
import type { CurvePoint } from "./points";

/* Gran's functions (1952): a curve made straight on one side of its jump, so that the end follows from points away from it. */

/** A straight line through a Gran function: where it meets the axis, and its slope. */
export interface GranLine {
  /** Equivalence point, mL. */
  readonly volume: number;
  /**
   * Standard uncertainty, mL: of the scatter about the line where nothing is known of the meter (zero for two points), else of what the meter
   * and the burette scatter, or the points where they scatter more.
   */
  readonly u: number;
  readonly slope: number;
  readonly intercept: number;
  readonly points: readonly { readonly volume: number; readonly value: number }[];
}

/** What is titrated and with what: the volume at the start, mL, the concentration of the titrant, mol/L, -log10 of the ion product of water. */
export interface GranSetting {
  readonly flaskMl: number;
  readonly titrant: number;
  readonly pKw: number;
  /** Standard uncertainty of a reading of the meter, pH, and of the burette, mL: a point weighs by what they make of it. All alike where nothing is said. */
  readonly uPH?: number;
  readonly uMl?: number;
}

type Straight = readonly { volume: number; value: number }[];

/** The smallest part of the largest value that a point is known to: near the end the line is nearly zero, and no point weighs without bound. */
const leastPart = 1e-4;

/** Weights by what a reading of the meter, a part of the value, and one of the burette make of each point; all one where they are not known. */
function weightsOf(points: Straight, { uPH, uMl }: GranSetting, slope: number): number[] {
  if (uPH === undefined || uMl === undefined) return points.map(() => 1);
  const floor = leastPart * Math.max(...points.map(({ value }) => Math.abs(value)));
  return points.map(({ value }) => 1 / Math.hypot(Math.LN10 * uPH * value, slope * uMl, floor) ** 2);
}

function lineThrough(points: Straight, setting: GranSetting): GranLine | null {
  const solve = (weights: readonly number[]) =>
    leastSquares(
      points.map(({ volume }) => [1, volume]),
      points.map(({ value }) => value),
      weights,
    );
  const first = solve(points.map(() => 1));
  const solved = first && solve(weightsOf(points, setting, first.coefficients[1] ?? 0));
  if (!solved) return null;
  const [intercept = NaN, slope = NaN] = solved.coefficients;
  const volume = -intercept / slope;
  const df = points.length - 2;
  const scatter = df > 0 ? Math.sqrt(solved.residualSum / df) : 0;
  const s = setting.uPH === undefined ? scatter : Math.max(1, scatter);
  // dV/da = -1/b, dV/db = a/b² = -V/b.
  const u = s * Math.hypot(...solved.independent([-1 / slope, -volume / slope]));
  return { volume, u, slope, intercept, points };
}

const scaled = (points: { volume: number; value: number }[]) => {
  const largest = Math.max(...points.map(({ value }) => Math.abs(value)));
  return points.map(({ volume, value }) => ({ volume, value: value / largest }));
};

/** H+ that is free beyond OH-, mol/L. */
const freeAcid = (pH: number, pKw: number): number => 10 ** -pH - 10 ** (pH - pKw);

/**
 * A strong acid by a strong base, before the jump: (V₀ + V)([H⁺] - [OH⁻]) falls in a straight line to zero at the end; beyond it, it goes
 * on in the same line. Points are those that are to be used. Null where they determine no line.
 */
export function granOfStrong(points: readonly CurvePoint[], setting: GranSetting): GranLine | null {
  const { flaskMl, pKw } = setting;
  const straight = points.map(({ volume, value }) => ({
    volume,
    value: (flaskMl + volume) * freeAcid(value, pKw),
  }));
  return lineThrough(scaled(straight), setting);
}

/** What base has turned into its salt, mL of titrant: what was added, and the acid that went without it, since some of it is free. */
const effective = ({ volume, value }: CurvePoint, { flaskMl, titrant, pKw }: GranSetting): number =>
  volume + ((flaskMl + volume) * freeAcid(value, pKw)) / titrant;

/**
 * A weak acid by a strong base, before the jump: V·10^(-pH) falls in a straight line to zero at the end, with -Ka as its slope. `plain` takes
 * the volume as it was added, as the class does; else it is corrected for the free H+ and OH-, which makes the line exact.
 */
export function granOfWeak(
  points: readonly CurvePoint[],
  setting: GranSetting,
  form: "plain" | "corrected",
): GranLine | null {
  const taken = points.map((point) => (form === "plain" ? point.volume : effective(point, setting)));
  const straight = points.map(({ value }, i) => ({ volume: taken[i]!, value: taken[i]! * 10 ** -value }));
  return lineThrough(straight, setting);
}

/** Beyond the jump: (V₀ + V)·10^(pH - pKw) rises from zero at the end, whatever the acid was. */
export function granBeyond(points: readonly CurvePoint[], setting: GranSetting): GranLine | null {
  const { flaskMl, pKw } = setting;
  const straight = points.map(({ volume, value }) => ({
    volume,
    value: (flaskMl + volume) * -freeAcid(value, pKw),
  }));
  return lineThrough(scaled(straight), setting);
}

/** Second constant of carbonic acid at 25 °C (CRC Handbook, from memory). */
const carbonateK2 = 10 ** -10.329;

/**
 * Gran's line beyond the jump of a strong acid by a base that holds carbonate: each carbonate takes a proton from water and leaves a hydroxide
 * behind, which is taken off, (V₀ + V)[OH⁻] - n(HCO₃⁻). How much carbonate there is follows from where the line before the jump ends,
 * `beforeMl`: there each one has taken two protons. Found in a few rounds.
 */
export function granBeyondCarbonated(
  points: readonly CurvePoint[],
  setting: GranSetting,
  beforeMl: number,
): GranLine | null {
  const { flaskMl, pKw } = setting;
  // Carbonate in the base, mol/L.
  let carbonate = 0;
  let line: GranLine | null = null;
  for (let i = 0; i < 20; i++) {
    const straight = points.map(({ volume, value }) => {
      const h = 10 ** -value;
      const hydrogenCarbonate = (carbonate * volume * h) / (h + carbonateK2);
      return { volume, value: (flaskMl + volume) * -freeAcid(value, pKw) - hydrogenCarbonate };
    });
    line = lineThrough(straight, setting);
    if (!line) return null;
    // The slope is the concentration of hydroxide in the base.
    carbonate = Math.max(0, (line.slope * (line.volume / beforeMl - 1)) / 2);
  }
  return line;
}
