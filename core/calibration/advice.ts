import { mean } from "../statistics";
import { incompleteBeta, studentT, twoSidedTail } from "../quantity";
import {
  type CalibrationFit,
  fitCalibration,
  byLevel,
  type LineModel,
  probabilityOfZero,
  type Weighting,
} from "./fit";
import { msg, type Phrase } from "../text";

/** The probability that F with these degrees of freedom exceeds f. */
export const upperTailF = (f: number, df1: number, df2: number): number =>
  incompleteBeta(df2 / (df2 + df1 * f), df2 / 2, df1 / 2);

export interface LackOfFit {
  readonly f: number;
  readonly df: readonly [number, number];
  /** The probability of an F so large, were the line the right one. */
  readonly probability: number;
}

/**
 * Lack-of-fit F test: how far the level means lie off the line, against the scatter within levels (Draper and Smith, 2.1,
 * from memory). Null where no level was read twice, or the levels are just enough for the model.
 */
export function lackOfFit({ points, model }: CalibrationFit): LackOfFit | null {
  const levels = byLevel(points);
  const parameters = { line: 2, origin: 1, quadratic: 3 }[model];
  const df = [levels.size - parameters, points.length - levels.size] as const;
  if (df[0] < 1 || df[1] < 1) return null;
  let [lack, pure] = [0, 0];
  for (const here of levels.values()) {
    const weight = here.reduce((sum, p) => sum + p.weight, 0);
    const center = here.reduce((sum, p) => sum + p.weight * p.y, 0) / weight;
    lack += weight * (center - (here[0]?.fitted ?? 0)) ** 2;
    pure += here.reduce((sum, p) => sum + p.weight * (p.y - center) ** 2, 0);
  }
  if (pure === 0) return null;
  const f = lack / df[0] / (pure / df[1]);
  return { f, df, probability: upperTailF(f, df[0], df[1]) };
}

const choose = (n: number, k: number): number => {
  let product = 1;
  for (let i = 1; i <= k; i++) product = (product * (n - k + i)) / i;
  return k < 0 || k > n ? 0 : Math.round(product);
};

/**
 * Runs of signs: the probability of so few changes of sign, or fewer, in a row of residuals in the order of the amounts
 * (Wald and Wolfowitz, exact). A curve leaves long runs.
 */
export function runsOfSigns(residuals: readonly number[]): {
  readonly runs: number;
  readonly probability: number;
} {
  const signs = residuals.filter((r) => r !== 0).map(Math.sign);
  const [plus, minus] = [1, -1].map((sign) => signs.filter((s) => s === sign).length) as [number, number];
  const runs = signs.reduce((count, sign, i) => count + (i === 0 || sign !== signs[i - 1] ? 1 : 0), 0);
  if (plus === 0 || minus === 0) return { runs, probability: 1 };
  let ways = 0;
  for (let r = 2; r <= runs; r++) {
    const k = Math.floor(r / 2);
    ways +=
      r % 2 === 0
        ? 2 * choose(plus - 1, k - 1) * choose(minus - 1, k - 1)
        : choose(plus - 1, k - 1) * choose(minus - 1, k) + choose(plus - 1, k) * choose(minus - 1, k - 1);
  }
  return { runs, probability: ways / choose(plus + minus, plus) };
}

/** A display shows thousandths: what lies off by two of them may be rounding. */
const shownBy = 0.002;

/** Indices of readings that lie off the line by more than chance allows once in twenty fits (Bonferroni), and visibly. */
export function offTheLine({ points, degreesOfFreedom }: CalibrationFit): number[] {
  if (degreesOfFreedom < 2) return [];
  return points.flatMap(({ studentized, residual }, i) =>
    Math.abs(residual) > shownBy &&
    twoSidedTail(Math.abs(studentized), degreesOfFreedom - 1) * points.length < 0.05
      ? [i]
      : [],
  );
}

/** The limit of |studentized residual| beyond which a reading is off the line. */
export const studentizedLimit = ({ points, degreesOfFreedom }: CalibrationFit): number =>
  degreesOfFreedom < 2 ? Infinity : studentT(1 - 0.05 / points.length, degreesOfFreedom - 1);

/** One thing that the data say of the line chosen. */
export interface LineAdvice {
  readonly about: "lack of fit" | "curvature" | "intercept" | "scatter" | "signs" | "few";
  readonly good: boolean;
  readonly text: Phrase;
  /** What to try instead. */
  readonly model?: LineModel;
  readonly weighting?: Weighting;
}

const percent = (p: number) =>
  p < 0.001 ? msg`less than 0.1 %` : `${(100 * p).toPrecision(2).replace(/\.$/, "")} %`;

/** Variances of the replicates in the lower and in the upper half of the levels, pooled. */
function halves({ points }: CalibrationFit): { ratio: number; df: readonly [number, number] } | null {
  const levels = [...byLevel(points).values()].map((level) => level.map(({ y }) => y));
  const half = Math.floor(levels.length / 2);
  const pooled = (part: readonly (readonly number[])[]) => {
    let [sum, df] = [0, 0];
    for (const ys of part) {
      const center = mean(ys);
      sum += ys.reduce((s, y) => s + (y - center) ** 2, 0);
      df += ys.length - 1;
    }
    return [sum / df, df] as const;
  };
  const [low, high] = [pooled(levels.slice(0, half)), pooled(levels.slice(-half))];
  if (low[1] < 3 || high[1] < 3 || low[0] === 0) return null;
  return { ratio: high[0] / low[0], df: [high[1], low[1]] };
}

/** Whether the means of the standards lie as close to the line as the readings scatter. */
function lackAdvice(fit: CalibrationFit): LineAdvice[] {
  const lack = lackOfFit(fit);
  if (!lack) return [];
  const good = lack.probability >= 0.05;
  const reason = msg`lack of fit F(${lack.df[0]}, ${lack.df[1]}) = ${lack.f.toPrecision(3)}, by chance in ${percent(lack.probability)} of cases`;
  const text = good
    ? msg`The means of the standards lie on the line as closely as the readings scatter: ${reason}`
    : msg`The means of the standards lie further off the line than the readings scatter: ${reason}. A standard may be wrong, or the relation curved`;
  return [{ about: "lack of fit", good, text }];
}

/** A straight line that bends, or a bent one that need not be. */
function curvatureAdvice(fit: CalibrationFit): LineAdvice[] {
  const about = { about: "curvature", good: false } as const;
  if (fit.model === "quadratic") {
    if (fit.degreesOfFreedom <= 0 || probabilityOfZero(fit, 2) <= 0.1) return [];
    const text = msg`The square term is not significantly different from zero: a straight line is enough`;
    return [{ ...about, text, model: "line" }];
  }
  if (fit.model !== "line") return [];
  const bent = fitCalibration(fit.points, "quadratic", fit.weighting);
  if (!bent.ok || bent.value.degreesOfFreedom <= 0) return [];
  const p = probabilityOfZero(bent.value, 2);
  if (p >= 0.05) return [];
  const side = bent.value.coefficients[2] * fit.coefficients[1] < 0 ? "flattens" : "steepens";
  const text = msg`The line ${side} toward the top (a square term by chance in ${percent(p)} of cases): leave out the strongest standards, or fit a quadratic`;
  return [{ ...about, text, model: "quadratic" }];
}

/** A line through the origin that would not go there by itself. */
function interceptAdvice(fit: CalibrationFit): LineAdvice[] {
  const free = fit.model === "origin" ? fitCalibration(fit.points, "line", fit.weighting) : null;
  if (!free?.ok || probabilityOfZero(free.value, 0) >= 0.05) return [];
  const text = msg`With a free intercept the line would meet the axis at ${free.value.coefficients[0].toFixed(4)}, significantly different from zero: check the blank, or let the intercept be free`;
  return [{ about: "intercept", good: false, text, model: "line" }];
}

/** Residuals that keep their sign too long. */
function signsAdvice(fit: CalibrationFit): LineAdvice[] {
  const means = [...byLevel(fit.points).values()].map((level) => mean(level.map(({ residual }) => residual)));
  const signs = runsOfSigns(means);
  if (signs.probability >= 0.05) return [];
  const text = msg`The residuals keep the same sign too long (${signs.runs} runs over ${means.length} standards): the relation is curved, or the instrument drifted`;
  return [{ about: "signs", good: false, text }];
}

/** Strong standards that scatter more than weak ones, and count as much. */
function scatterAdvice(fit: CalibrationFit): LineAdvice[] {
  const scatter = halves(fit);
  if (!scatter || fit.weighting !== "none" || upperTailF(scatter.ratio, ...scatter.df) >= 0.01) return [];
  const text = msg`The strong standards scatter ${Math.sqrt(scatter.ratio).toFixed(1)} times as much as the weak ones: use weights, so that the weak ones count as they should`;
  return [{ about: "scatter", good: false, text, weighting: "1/s²" }];
}

/** Few readings beside the unknowns of the line. */
function fewAdvice({ degreesOfFreedom: more }: CalibrationFit): LineAdvice[] {
  if (more >= 3) return [];
  const text =
    more === 1
      ? msg`Only 1 more reading than the line has unknowns: its ± is known poorly; read more standards, or each of them twice`
      : msg`Only ${more} more readings than the line has unknowns: its ± is known poorly; read more standards, or each of them twice`;
  return [{ about: "few", good: false, text }];
}

/** What the data say of the line that was chosen, and what they would rather have. R² has no say in it. */
export const adviseLine = (fit: CalibrationFit): LineAdvice[] =>
  [lackAdvice, curvatureAdvice, interceptAdvice, signsAdvice, scatterAdvice, fewAdvice].flatMap((advise) =>
    advise(fit),
  );
