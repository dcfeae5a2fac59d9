import { leastSquares } from "../calibration/least-squares";
import { studentT } from "../quantity";
import { failure, type Result, success } from "../result";
import { msg, type Phrase } from "../text";

/** The apparent rate constant of one run and the concentration that was in large excess. */
export interface PseudoRun {
  readonly concentration: number;
  readonly k: number;
  readonly u: number;
}

export interface Dependence {
  /** Order in the excess reagent. */
  readonly n: number;
  /** Its ± in the house's meaning; null where two runs leave nothing to tell it from. */
  readonly half: number | null;
  readonly nearest: number;
  readonly text: Phrase;
}

/**
 * n from k' = k [B]ⁿ: the slope of ln k' against ln [B] over runs with unlike concentrations, weighted by 1/u(ln k')².
 * `plusMinus` turns a standard uncertainty with its degrees of freedom into what follows a ±: the 95 % interval where nothing is
 * said. Whether it is a whole number is judged by the 95 % interval.
 */
export function orderInExcess(
  runs: readonly PseudoRun[],
  plusMinus = (u: number, df: number) => studentT(0.95, df) * u,
): Result<Dependence> {
  const usable = runs.filter(({ k, concentration }) => k > 0 && concentration > 0);
  if (new Set(usable.map((r) => r.concentration)).size < 2)
    return failure(
      msg`At least two runs with different concentrations are needed for the order in the excess reagent`,
    );
  const relative = usable.map(({ k, u }) => Math.max(u / k, 1e-4));
  const solved = leastSquares(
    usable.map(({ concentration }) => [1, Math.log(concentration)]),
    usable.map(({ k }) => Math.log(k)),
    relative.map((r) => 1 / (r * r)),
  );
  if (!solved) return failure(msg`The concentrations are too similar to tell the order`);
  const n = solved.coefficients[1] ?? NaN;
  const df = usable.length - 2;
  const known = Math.hypot(...solved.independent([0, 1]));
  // The scatter of the runs about the line, where it shows more than their own ± do.
  const scatter = df > 0 ? Math.max(1, Math.sqrt(solved.residualSum / df)) : 1;
  const u = known * scatter;
  const half = df > 0 ? plusMinus(u, df) : null;
  const nearest = Math.round(n);
  const near = half === null || Math.abs(n - nearest) <= studentT(0.95, df) * u;
  const order = half === null ? n.toFixed(2) : `${n.toFixed(2)} ± ${half.toFixed(2)}`;
  return success({
    n,
    half,
    nearest,
    text: near
      ? msg`The order in the excess reagent is ${order}, so ${nearest}${half === null ? msg`; two runs cannot tell how surely` : ""}.`
      : msg`The order in the excess reagent is ${order}, not a whole number: check the concentrations and the window.`,
  });
}
