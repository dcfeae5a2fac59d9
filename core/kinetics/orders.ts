import { studentT } from "../quantity";
import { failure, type Result, success } from "../result";

export type Order = 0 | 1 | 2;

/** Absorbance against time: seconds, rising, and what was read at each. */
export interface Course {
  readonly seconds: readonly number[];
  readonly absorbance: readonly number[];
}

/** A straight line through transformed readings, as a class draws it. */
export interface TransformedLine {
  readonly intercept: number;
  readonly slope: number;
  /** Correlation coefficient. */
  readonly r: number;
  /** Readings that have no logarithm or reciprocal, and were left out. */
  readonly leftOut: number;
}

/** One order fitted to the readings as they are. */
export interface OrderFit {
  readonly order: Order;
  /** A, ln A or 1/A against t. */
  readonly line: TransformedLine;
  /** Absorbance at the first reading, by the law. */
  readonly initial: number;
  /** Time of the first reading, s: the law counts from there. */
  readonly origin: number;
  /** Rate constant in 1/s: of absorbance, of its logarithm, or of its reciprocal. */
  readonly k: number;
  /** Standard uncertainty of k, widened where neighboring readings hang together. */
  readonly u: number;
  readonly halfLife: number;
  readonly halfLifeU: number;
  readonly residualSd: number;
  readonly residuals: readonly number[];
  /** Correlation of each residual with the next: near zero where the law fits. */
  readonly lagCorrelation: number;
  readonly aicc: number;
  /** Akaike weight: how much of the evidence, of the three, is for this order. */
  readonly evidence: number;
  readonly degreesOfFreedom: number;
}

/** What is plotted for an order; null where it does not exist. */
export function transformed(order: Order, absorbance: number): number | null {
  if (order === 0) return absorbance;
  if (absorbance <= 0) return null;
  return order === 1 ? Math.log(absorbance) : 1 / absorbance;
}

/** The absorbance that an order gives after t seconds. */
export function rateLaw(order: Order, initial: number, k: number, t: number): number {
  if (order === 0) return initial - k * t;
  return order === 1 ? initial * Math.exp(-k * t) : initial / (1 + k * initial * t);
}

function slopes(order: Order, initial: number, k: number, t: number): readonly [number, number] {
  if (order === 0) return [1, -t];
  if (order === 1) {
    const e = Math.exp(-k * t);
    return [e, -initial * t * e];
  }
  const d = 1 + k * initial * t;
  return [1 / d ** 2, (-(initial ** 2) * t) / d ** 2];
}

function transformedLine({ seconds, absorbance }: Course, order: Order): TransformedLine {
  let [n, st, sy, stt, syy, sty] = [0, 0, 0, 0, 0, 0];
  const shift = seconds[0] ?? 0;
  for (let i = 0; i < seconds.length; i++) {
    const y = transformed(order, absorbance[i] ?? 0);
    if (y === null) continue;
    const t = (seconds[i] ?? 0) - shift;
    n++;
    st += t;
    sy += y;
    stt += t * t;
    syy += y * y;
    sty += t * y;
  }
  const [xx, xy, yy] = [stt - (st * st) / n, sty - (st * sy) / n, syy - (sy * sy) / n];
  const slope = xy / xx;
  return {
    slope,
    intercept: (sy - slope * st) / n - slope * shift,
    r: yy > 0 ? xy / Math.sqrt(xx * yy) : 0,
    leftOut: seconds.length - n,
  };
}

interface Sums {
  readonly square: number;
  readonly normal: readonly [number, number, number];
  readonly gradient: readonly [number, number];
}

function sumsAt({ seconds, absorbance }: Course, order: Order, initial: number, k: number): Sums {
  let [square, aa, ak, kk, ga, gk] = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < seconds.length; i++) {
    const t = seconds[i] ?? 0;
    const residual = (absorbance[i] ?? 0) - rateLaw(order, initial, k, t);
    const [da, dk] = slopes(order, initial, k, t);
    square += residual * residual;
    aa += da * da;
    ak += da * dk;
    kk += dk * dk;
    ga += da * residual;
    gk += dk * residual;
  }
  return { square, normal: [aa, ak, kk], gradient: [ga, gk] };
}

/**
 * Least squares on the readings as they are, by Levenberg and Marquardt's damping from the transformed line. Time is counted
 * from the first reading: a second-order law carried back beyond it may have a pole there.
 */
function fitOrder(read: Course, order: Order): Omit<OrderFit, "evidence"> {
  const origin = read.seconds[0] ?? 0;
  const course: Course = { ...read, seconds: read.seconds.map((t) => t - origin) };
  const asDrawn = transformedLine(read, order);
  const line = transformedLine(course, order);
  let initial =
    order === 0
      ? line.intercept
      : order === 1
        ? Math.exp(line.intercept)
        : 1 / Math.max(1e-3, line.intercept);
  let k = order === 2 ? line.slope : -line.slope;
  const [a0] = course.absorbance;
  if (!Number.isFinite(initial) || initial <= 0 || initial > 10) initial = a0 ?? 1;
  if (!Number.isFinite(k)) k = 0;
  let now = sumsAt(course, order, initial, k);
  let damping = 1e-3;
  for (let i = 0; i < 60; i++) {
    const [aa, ak, kk] = now.normal;
    const [daa, dkk] = [aa * (1 + damping), kk * (1 + damping)];
    const det = daa * dkk - ak * ak;
    const [ga, gk] = now.gradient;
    const [sa, sk] = [(dkk * ga - ak * gk) / det, (daa * gk - ak * ga) / det];
    const next = sumsAt(course, order, initial + sa, k + sk);
    if (next.square <= now.square && Number.isFinite(next.square)) {
      const small = Math.abs(sk) <= 1e-12 * Math.abs(k) + 1e-18 && Math.abs(sa) <= 1e-12 * Math.abs(initial);
      initial += sa;
      k += sk;
      now = next;
      damping = Math.max(1e-12, damping / 10);
      if (small) break;
    } else if ((damping *= 10) > 1e12) break;
  }
  const n = course.seconds.length;
  const degreesOfFreedom = n - 2;
  const residuals = course.seconds.map((t, i) => (course.absorbance[i] ?? 0) - rateLaw(order, initial, k, t));
  const [aa, ak, kk] = now.normal;
  const det = aa * kk - ak * ak;
  const s2 = now.square / degreesOfFreedom;
  const lagCorrelation =
    now.square > 0
      ? residuals.slice(1).reduce((sum, r, i) => sum + r * (residuals[i] ?? 0), 0) / now.square
      : 0;
  // Readings that hang together tell less: their variance counts (1 + r)/(1 - r) times (common practice, no source).
  const lag = Math.min(0.98, Math.max(0, lagCorrelation));
  const widened = (s2 * (1 + lag)) / (1 - lag);
  const [va, vk, cov] = [(kk / det) * widened, (aa / det) * widened, (-ak / det) * widened];
  const [halfLife, da, dk] =
    order === 0
      ? [initial / (2 * k), 1 / (2 * k), -initial / (2 * k * k)]
      : order === 1
        ? [Math.LN2 / k, 0, -Math.LN2 / (k * k)]
        : [1 / (k * initial), -1 / (k * initial ** 2), -1 / (k * k * initial)];
  return {
    order,
    line: asDrawn,
    initial,
    origin,
    k,
    u: Math.sqrt(vk),
    halfLife,
    halfLifeU: Math.sqrt(Math.max(0, da * da * va + dk * dk * vk + 2 * da * dk * cov)),
    residualSd: Math.sqrt(s2),
    residuals,
    lagCorrelation,
    // Three unknowns: two of the law and the scatter.
    aicc: n * Math.log(Math.max(now.square, 1e-300) / n) + 6 + 24 / Math.max(1, n - 4),
    degreesOfFreedom,
  };
}

export interface OrderComparison {
  readonly fits: readonly [OrderFit, OrderFit, OrderFit];
  /** The order that the better judge prefers. */
  readonly best: Order;
  /** The order with the straightest transformed plot, as a class compares. */
  readonly straightest: Order;
  /** What the two say, in words. */
  readonly text: string;
}

/** Readings that an order can be told from, at least. */
export const fewestReadings = 8;

/** The part of a course between two times, ends included; null for an open end. */
export function windowOf(course: Course, from: number | null, to: number | null): Course {
  const inside = course.seconds.flatMap((t, i) =>
    (from === null || t >= from) && (to === null || t <= to) ? [i] : [],
  );
  return {
    seconds: inside.map((i) => course.seconds[i] ?? NaN),
    absorbance: inside.map((i) => course.absorbance[i] ?? NaN),
  };
}

const orderWords = ["zero", "first", "second"] as const;
export const orderWord = (order: Order): string => orderWords[order];

/**
 * Zero, first and second order fitted to the same readings: straight lines through A, ln A and 1/A with their correlation
 * coefficients, and least squares on the absorbances themselves, judged by Akaike's criterion for small samples (Burnham and
 * Anderson, Model Selection, 2.4; from memory). Transforming makes the smallest absorbances count most; AICc does not.
 */
export function compareOrders(course: Course): Result<OrderComparison> {
  const n = course.seconds.length;
  if (n < fewestReadings) {
    return failure(
      `${n === 1 ? "One reading lies" : `${n} readings lie`} in the window: an order needs ${fewestReadings} at least`,
    );
  }
  const [low, high] = [Math.min(...course.absorbance), Math.max(...course.absorbance)];
  if (high - low === 0) return failure("The absorbance does not change: there is no rate in it");
  const fits = ([0, 1, 2] as const).map((order) => fitOrder(course, order));
  const least = Math.min(...fits.map((f) => f.aicc));
  const likelihoods = fits.map((f) => Math.exp(-(f.aicc - least) / 2));
  const total = likelihoods.reduce((a, b) => a + b, 0);
  const judged = fits.map((f, i): OrderFit => ({ ...f, evidence: (likelihoods[i] ?? 0) / total }));
  const best = judged.reduce((a, b) => (b.aicc < a.aicc ? b : a));
  const straightest = judged.reduce((a, b) => (Math.abs(b.line.r) > Math.abs(a.line.r) ? b : a));
  const second = [...judged].sort((a, b) => b.evidence - a.evidence)[1];
  const sure =
    best.evidence > 0.95
      ? `${best.order === 0 ? "Zero" : best.order === 1 ? "First" : "Second"} order fits the readings best, clearly so`
      : `${best.order === 0 ? "Zero" : best.order === 1 ? "First" : "Second"} order fits best, but ${orderWord(second?.order ?? 0)} order is not out of the question (${((second?.evidence ?? 0) * 100).toFixed(0)} % of the evidence): follow the reaction for longer`;
  const agreed =
    straightest.order === best.order
      ? ", and its plot is the straightest too"
      : `. The straightest plot is that of ${orderWord(straightest.order)} order: transforming makes the smallest absorbances, and their noise, count most`;
  const hanging =
    best.lagCorrelation > 0.4
      ? ". What is left over hangs together in time: the law may change on the way, or the instrument drifted; narrow the window"
      : "";
  return success({
    fits: judged as unknown as OrderComparison["fits"],
    best: best.order,
    straightest: straightest.order,
    text: `${sure}${agreed}${hanging}.`,
  });
}

/** Half width of the 95 % interval of a rate constant. */
export const halfInterval = ({ u, degreesOfFreedom }: OrderFit): number =>
  studentT(0.95, degreesOfFreedom) * u;
