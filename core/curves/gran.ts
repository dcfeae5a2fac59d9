import { leastSquares } from "../calibration";
import type { CurvePoint } from "./points";

/* Gran's functions (1952): a curve made straight on one side of its jump, so that the end follows from points away from it. */

/** A straight line through a Gran function: where it meets the axis, and its slope. */
export interface GranLine {
  /** Equivalence point, mL. */
  readonly volume: number;
  /** Standard uncertainty from the scatter about the line, mL; zero for two points. */
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
}

function lineThrough(points: readonly { volume: number; value: number }[]): GranLine | null {
  const solved = leastSquares(
    points.map(({ volume }) => [1, volume]),
    points.map(({ value }) => value),
    points.map(() => 1),
  );
  if (!solved) return null;
  const [intercept = NaN, slope = NaN] = solved.coefficients;
  const volume = -intercept / slope;
  const df = points.length - 2;
  const s = df > 0 ? Math.sqrt(solved.residualSum / df) : 0;
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
export const granOfStrong = (points: readonly CurvePoint[], { flaskMl, pKw }: GranSetting): GranLine | null =>
  lineThrough(
    scaled(points.map(({ volume, value }) => ({ volume, value: (flaskMl + volume) * freeAcid(value, pKw) }))),
  );

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
  return lineThrough(points.map(({ value }, i) => ({ volume: taken[i]!, value: taken[i]! * 10 ** -value })));
}

/** Beyond the jump: (V₀ + V)·10^(pH - pKw) rises from zero at the end, whatever the acid was. */
export const granBeyond = (points: readonly CurvePoint[], { flaskMl, pKw }: GranSetting): GranLine | null =>
  lineThrough(
    scaled(
      points.map(({ volume, value }) => ({ volume, value: (flaskMl + volume) * -freeAcid(value, pKw) })),
    ),
  );
