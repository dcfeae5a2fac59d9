import { leastSquares } from "../calibration";
import { fitNonlinear } from "../curves";
import { chiSquareTail } from "../judgement";

/* How much a gram takes up at each concentration: two laws, each as the class draws it and as the titers have it. */

/** By how much a cause moves the concentration and the uptake of a bottle together, when it moves by one standard deviation. */
export interface MovedBy {
  readonly concentration: number;
  readonly uptake: number;
}

/** One bottle at equilibrium. */
export interface Bottle {
  /** mol/L. */
  readonly concentration: number;
  /** mol/kg, the same number as mmol/g. */
  readonly uptake: number;
  /** By cause: a titer moves both, and one that all bottles share moves all of them. */
  readonly causes: ReadonlyMap<string, MovedBy>;
}

export type Law = "freundlich" | "langmuir";

interface Isotherm {
  /** Uptake at a concentration; parameters are logarithms, so that none becomes negative. */
  readonly uptake: (concentration: number, parameters: readonly [number, number]) => number;
  /** By the concentration. */
  readonly slope: (concentration: number, parameters: readonly [number, number]) => number;
  /** The straight line that the class draws, with what it says of the parameters. */
  readonly line: (bottles: readonly Bottle[]) => ClassLine | null;
}

/** A straight line through transformed values, every bottle with the same weight. */
export interface ClassLine {
  /** As they are, not their logarithms: K in mmol/g at 1 mol/L and 1/n, or the capacity in mmol/g and b in L/mol. */
  readonly parameters: readonly [number, number];
  readonly intercept: number;
  readonly slope: number;
  /** Standard deviation about the line. */
  readonly scatter: number;
}

function straight(x: readonly number[], y: readonly number[]) {
  const solved = leastSquares(
    x.map((v) => [1, v]),
    y,
    x.map(() => 1),
  );
  if (!solved) return null;
  const [intercept = NaN, slope = NaN] = solved.coefficients;
  const scatter = x.length > 2 ? Math.sqrt(solved.residualSum / (x.length - 2)) : 0;
  return { intercept, slope, scatter };
}

export const isotherms: Readonly<Record<Law, Isotherm>> = {
  // q = K c^(1/n), parameters ln K and ln(1/n).
  freundlich: {
    uptake: (c, [k, e]) => Math.exp(k) * c ** Math.exp(e),
    slope: (c, [k, e]) => Math.exp(k + e) * c ** (Math.exp(e) - 1),
    line: (bottles) => {
      const found = straight(
        bottles.map((b) => Math.log10(b.concentration)),
        bottles.map((b) => Math.log10(b.uptake)),
      );
      return found && { ...found, parameters: [10 ** found.intercept, found.slope] };
    },
  },
  // q = q_m b c / (1 + b c), parameters ln q_m and ln b.
  langmuir: {
    uptake: (c, [m, b]) => (Math.exp(m + b) * c) / (1 + Math.exp(b) * c),
    slope: (c, [m, b]) => Math.exp(m + b) / (1 + Math.exp(b) * c) ** 2,
    line: (bottles) => {
      const found = straight(
        bottles.map((b) => b.concentration),
        bottles.map((b) => b.concentration / b.uptake),
      );
      return found && { ...found, parameters: [1 / found.slope, found.slope / found.intercept] };
    },
  },
};

export interface FittedParameter {
  readonly value: number;
  /** How it moves with each cause, for one standard deviation of it. */
  readonly causes: ReadonlyMap<string, number>;
  /** Standard uncertainty from all causes together. */
  readonly u: number;
}

export interface IsothermFit {
  readonly law: Law;
  /** K in mmol/g at 1 mol/L and 1/n, or the capacity in mmol/g and b in L/mol. */
  readonly parameters: readonly [FittedParameter, FittedParameter];
  /** The logarithms in which it was fitted. */
  readonly logarithms: readonly [number, number];
  readonly chiSquare: number;
  readonly degreesOfFreedom: number;
  /** How often chance alone would give so large a χ². */
  readonly probability: number;
  /** What each bottle is off, over what it should scatter. */
  readonly standardized: readonly number[];
}

/** L of C = L Lᵀ; null where C is not positive definite. */
function cholesky(matrix: readonly (readonly number[])[]): number[][] | null {
  const lower = matrix.map((row) => row.map(() => 0));
  for (const [i, row] of matrix.entries()) {
    for (let j = 0; j <= i; j++) {
      let sum = row[j]!;
      for (let k = 0; k < j; k++) sum -= lower[i]![k]! * lower[j]![k]!;
      if (i === j && !(sum > 0)) return null;
      lower[i]![j] = i === j ? Math.sqrt(sum) : sum / lower[j]![j]!;
    }
  }
  return lower;
}

/** Solves L x = v. */
function whitened(lower: readonly (readonly number[])[], v: readonly number[]): number[] {
  const x: number[] = [];
  for (const [i, row] of lower.entries()) {
    let sum = v[i]!;
    for (let k = 0; k < i; k++) sum -= row[k]! * x[k]!;
    x.push(sum / row[i]!);
  }
  return x;
}

/** By how much each cause moves what a bottle is off the law: uptake and concentration together, along its slope. */
function movedOff(bottles: readonly Bottle[], slopes: readonly number[]): Map<string, number[]> {
  const moved = new Map<string, number[]>();
  bottles.forEach(({ causes }, i) => {
    for (const [id, { concentration, uptake }] of causes) {
      const row = moved.get(id) ?? bottles.map(() => 0);
      row[i] = uptake - slopes[i]! * concentration;
      moved.set(id, row);
    }
  });
  return moved;
}

/** Rounds after which the covariance of the law that is found is that of the law itself. */
const rounds = 8;

/**
 * A law fitted to what was titrated: the weighted squares of q - f(c) are least, with the covariance that the causes give to those differences.
 * A titer is in the concentration and in the uptake, so that an error of it moves a bottle along a line of its own, and one of the start acid moves
 * all bottles; both count in the differences as they are (generalized least squares with the effective variance, York 1966 and Deming 1943, from
 * memory). In first order this is a fit to the titers, and its χ² is that of the titers: laws are judged by it alike. Null where the bottles do not
 * determine two parameters.
 */
export function fitIsotherm(bottles: readonly Bottle[], law: Law): IsothermFit | null {
  if (bottles.length < 3 || bottles.some(({ concentration, uptake }) => !(concentration > 0 && uptake > 0)))
    return null;
  const { uptake, slope, line } = isotherms[law];
  const classLine = line(bottles);
  if (!classLine) return null;
  const largest = Math.max(...bottles.map((b) => b.uptake));
  const middle = bottles.map((b) => b.concentration).toSorted((a, b) => a - b)[bottles.length >> 1]!;
  const usual = law === "langmuir" ? [1.5 * largest, 1 / middle] : [largest, 0.5];
  let at = classLine.parameters.map((p, i) => Math.log(p > 0 ? p : usual[i]!)) as unknown as readonly [
    number,
    number,
  ];
  let found: { lower: number[][]; chiSquare: number } | null = null;
  const differences = (p: readonly [number, number]) =>
    bottles.map(({ concentration, uptake: q }) => q - uptake(concentration, p));
  const covarianceAt = (p: readonly [number, number]) => {
    const moved = movedOff(
      bottles,
      bottles.map(({ concentration }) => slope(concentration, p)),
    );
    const rows = [...moved.values()];
    return {
      moved,
      matrix: bottles.map((_, i) =>
        bottles.map((_, j) => rows.reduce((sum, row) => sum + row[i]! * row[j]!, 0)),
      ),
    };
  };
  for (let round = 0; round < rounds; round++) {
    const lower = cholesky(covarianceAt(at).matrix);
    const fit =
      lower && fitNonlinear((p) => whitened(lower, differences(p as readonly [number, number])), at);
    if (!lower || !fit) return null;
    at = fit.parameters as readonly [number, number];
    found = { lower, chiSquare: fit.chiSquare };
  }
  if (!found || !at.every(Number.isFinite)) return null;
  const { moved, matrix } = covarianceAt(at);
  const degreesOfFreedom = bottles.length - 2;
  const off = differences(at);
  return {
    law,
    logarithms: at,
    parameters: parametersOf(at, found.lower, moved, differences),
    chiSquare: found.chiSquare,
    degreesOfFreedom,
    probability: degreesOfFreedom > 0 ? chiSquareTail(found.chiSquare, degreesOfFreedom) : 1,
    standardized: off.map((r, i) => r / Math.sqrt(matrix[i]![i]!)),
  };
}

/** Values of the parameters, and how each cause moves them: δθ = (FᵀC⁻¹F)⁻¹ FᵀC⁻¹ δr. */
function parametersOf(
  at: readonly [number, number],
  lower: readonly (readonly number[])[],
  moved: ReadonlyMap<string, readonly number[]>,
  differences: (p: readonly [number, number]) => number[],
): [FittedParameter, FittedParameter] {
  const step = 1e-6;
  const there = differences(at);
  const columns = ([0, 1] as const).map((j) => {
    const next = at.map((p, k) => (k === j ? p + step : p)) as unknown as readonly [number, number];
    // F is by the law itself, which is taken off in the differences.
    return whitened(
      lower,
      differences(next).map((r, i) => (there[i]! - r) / step),
    );
  });
  const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, x, i) => sum + x * b[i]!, 0);
  const [f, g] = [columns[0]!, columns[1]!];
  const [a, b, d] = [dot(f, f), dot(f, g), dot(g, g)];
  const determinant = a * d - b * b;
  const moves = [...moved].map(([id, row]) => {
    const white = whitened(lower, row);
    const [u, v] = [dot(f, white), dot(g, white)];
    return [id, (d * u - b * v) / determinant, (a * v - b * u) / determinant] as const;
  });
  const parameter = (j: 0 | 1): FittedParameter => {
    const value = Math.exp(at[j]);
    const causes = new Map(moves.map(([id, first, second]) => [id, value * (j === 0 ? first : second)]));
    return { value, causes, u: Math.hypot(...causes.values()) };
  };
  return [parameter(0), parameter(1)];
}

/** A law is rejected where chance alone gives so large a χ² in less than so many cases. Common practice. */
export const leastProbability = 0.05;

/** The law that describes the titers better, both having two parameters: the smaller χ². Null where neither describes them. */
export function betterLaw(fits: readonly IsothermFit[]): IsothermFit | null {
  const [best] = fits.toSorted((a, b) => a.chiSquare - b.chiSquare);
  return best && best.probability >= leastProbability ? best : null;
}

/** A bottle is off its law beyond so many standard deviations. Common practice, no source. */
export const farOff = 2.5;

/** What a law that was fitted says is taken up at a concentration, mol/L, with how each cause moves it: mmol/g. */
export function uptakeAt(
  { law, logarithms, parameters }: IsothermFit,
  concentration: number,
): FittedParameter {
  const { uptake } = isotherms[law];
  const value = uptake(concentration, logarithms);
  const step = 1e-6;
  const by = ([0, 1] as const).map((j) => {
    const moved = logarithms.map((p, k) => (k === j ? p + step : p)) as unknown as readonly [number, number];
    return (uptake(concentration, moved) - value) / step;
  });
  const ids = new Set(parameters.flatMap(({ causes }) => [...causes.keys()]));
  const causes = new Map(
    [...ids].map((id) => [
      id,
      parameters.reduce((sum, p, j) => sum + (by[j]! * (p.causes.get(id) ?? 0)) / p.value, 0),
    ]),
  );
  return { value, causes, u: Math.hypot(...causes.values()) };
}
