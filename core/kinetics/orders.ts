import { studentT } from "../quantity";
import { failure, type Result, success } from "../result";
import { hardlyAnySupport } from "../statistics";
import { msg, type Phrase, capitalized } from "../text";

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
  /** A, ln A or 1/A against t; of what is above the end absorbance, where that is fitted. */
  readonly line: TransformedLine;
  /** Absorbance at the first reading, by the law, above the end absorbance. */
  readonly initial: number;
  /** The absorbance that the course levels off at; zero unless it was fitted. A course of zero order has none. */
  readonly end: number;
  /** Standard uncertainty of it; zero where it was not fitted. */
  readonly endU: number;
  /** Time of the first reading, s: the law counts from there. */
  readonly origin: number;
  /** Rate constant by absorbance: in absorbance/s, 1/s or 1/(absorbance·s), by the order. */
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

/** Units of a rate constant by absorbance, by the order. */
export const rateUnits = ["absorbance/s", "1/s", "1/(absorbance·s)"] as const;

/** What is plotted for an order; null where it does not exist. `end` is the absorbance that the course levels off at. */
export function transformed(order: Order, absorbance: number, end = 0): number | null {
  const above = absorbance - (order === 0 ? 0 : end);
  if (order === 0) return above;
  if (above <= 0) return null;
  return order === 1 ? Math.log(above) : 1 / above;
}

/** The absorbance that an order gives after t seconds: what fades by the law, and what stays. */
export function rateLaw(order: Order, initial: number, k: number, t: number, end = 0): number {
  if (order === 0) return initial - k * t;
  return end + (order === 1 ? initial * Math.exp(-k * t) : initial / (1 + k * initial * t));
}

/** Derivatives of the law by its initial absorbance and its rate constant; by the end absorbance it is one. */
function slopes(order: Order, initial: number, k: number, t: number): readonly [number, number] {
  if (order === 0) return [1, -t];
  if (order === 1) {
    const e = Math.exp(-k * t);
    return [e, -initial * t * e];
  }
  const d = 1 + k * initial * t;
  return [1 / d ** 2, (-(initial ** 2) * t) / d ** 2];
}

function transformedLine({ seconds, absorbance }: Course, order: Order, end: number): TransformedLine {
  let [n, st, sy, stt, syy, sty] = [0, 0, 0, 0, 0, 0];
  const shift = seconds[0] ?? 0;
  for (let i = 0; i < seconds.length; i++) {
    const y = transformed(order, absorbance[i] ?? 0, end);
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

/** Initial absorbance, rate constant, end absorbance. */
type Parameters = readonly [initial: number, k: number, end: number];

/** The normal equations of the law at some parameters: symmetric, by rows; the end absorbance is the third. */
interface Sums {
  readonly square: number;
  readonly normal: readonly [aa: number, ak: number, ae: number, kk: number, ke: number, ee: number];
  readonly gradient: readonly [number, number, number];
}

function sumsAt({ seconds, absorbance }: Course, order: Order, [initial, k, end]: Parameters): Sums {
  let [square, aa, ak, ae, kk, ke, ga, gk, ge] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (let i = 0; i < seconds.length; i++) {
    const t = seconds[i] ?? 0;
    const residual = (absorbance[i] ?? 0) - rateLaw(order, initial, k, t, end);
    const [da, dk] = slopes(order, initial, k, t);
    square += residual * residual;
    aa += da * da;
    ak += da * dk;
    ae += da;
    kk += dk * dk;
    ke += dk;
    ga += da * residual;
    gk += dk * residual;
    ge += residual;
  }
  return { square, normal: [aa, ak, ae, kk, ke, seconds.length], gradient: [ga, gk, ge] };
}

/** The inverse of the normal matrix, its diagonal made larger by the damping; of its first two rows where no end is fitted. */
function inverted(
  { normal: [aa, ak, ae, kk, ke, ee] }: Sums,
  withEnd: boolean,
  damping: number,
): readonly (readonly [number, number, number])[] {
  const [a, d, f] = [aa, kk, ee].map((x) => x * (1 + damping)) as [number, number, number];
  if (!withEnd) {
    const det = a * d - ak * ak;
    return [
      [d / det, -ak / det, 0],
      [-ak / det, a / det, 0],
      [0, 0, 0],
    ];
  }
  const [b, c, e] = [ak, ae, ke];
  const det = a * (d * f - e * e) - b * (b * f - c * e) + c * (b * e - c * d);
  const [ab, ac, bc] = [(c * e - b * f) / det, (b * e - c * d) / det, (b * c - a * e) / det];
  return [
    [(d * f - e * e) / det, ab, ac],
    [ab, (a * f - c * c) / det, bc],
    [ac, bc, (a * d - b * b) / det],
  ];
}

/** Where the fit begins: by the transformed line above a guess of the end absorbance. */
function firstGuess(course: Course, order: Order, withEnd: boolean): Parameters {
  const least = Math.min(...course.absorbance);
  const most = Math.max(...course.absorbance);
  const end = withEnd ? least - 0.02 * (most - least) : 0;
  const line = transformedLine(course, order, end);
  const from = [line.intercept, Math.exp(line.intercept), 1 / Math.max(1e-3, line.intercept)][order] ?? NaN;
  const k = order === 2 ? line.slope : -line.slope;
  const first = (course.absorbance[0] ?? 1) - end;
  return [
    Number.isFinite(from) && from > 0 && from <= 10 ? from : first || 1,
    Number.isFinite(k) ? k : 0,
    end,
  ];
}

/** Least squares on the readings as they are, by Levenberg and Marquardt's damping from a first guess. */
function leastSquaresOf(
  course: Course,
  order: Order,
  withEnd: boolean,
): { readonly parameters: Parameters; readonly sums: Sums } {
  let parameters = firstGuess(course, order, withEnd);
  let now = sumsAt(course, order, parameters);
  let damping = 1e-3;
  for (let i = 0; i < 100; i++) {
    const inverse = inverted(now, withEnd, damping);
    const step = inverse.map((row) => row.reduce((sum, x, j) => sum + x * (now.gradient[j] ?? 0), 0));
    const tried = parameters.map((p, j) => p + (step[j] ?? 0)) as unknown as Parameters;
    const next = sumsAt(course, order, tried);
    if (next.square <= now.square && Number.isFinite(next.square)) {
      const small = step.every((s, j) => Math.abs(s) <= 1e-12 * Math.abs(parameters[j] ?? 0) + 1e-18);
      parameters = tried;
      now = next;
      damping = Math.max(1e-12, damping / 10);
      if (small) break;
    } else if ((damping *= 10) > 1e12) break;
  }
  return { parameters, sums: now };
}

/**
 * One order fitted to a course. Time is counted from the first reading: a second-order law carried back beyond it may have a
 * pole there. With `fitEnd`, first and second order level off at an absorbance of their own, which is a third unknown.
 */
function fitOrder(read: Course, order: Order, fitEnd: boolean): Omit<OrderFit, "evidence"> {
  const origin = read.seconds[0] ?? 0;
  const course: Course = { ...read, seconds: read.seconds.map((t) => t - origin) };
  const withEnd = fitEnd && order !== 0;
  const { parameters, sums } = leastSquaresOf(course, order, withEnd);
  const [initial, k, end] = parameters;
  const n = course.seconds.length;
  const unknowns = withEnd ? 3 : 2;
  const degreesOfFreedom = n - unknowns;
  const residuals = course.seconds.map(
    (t, i) => (course.absorbance[i] ?? 0) - rateLaw(order, initial, k, t, end),
  );
  const s2 = sums.square / degreesOfFreedom;
  const lagCorrelation =
    sums.square > 0
      ? residuals.slice(1).reduce((sum, r, i) => sum + r * (residuals[i] ?? 0), 0) / sums.square
      : 0;
  // Readings that hang together tell less: their variance counts (1 + r)/(1 - r) times (common practice, no source).
  const lag = Math.min(0.98, Math.max(0, lagCorrelation));
  const widened = (s2 * (1 + lag)) / (1 - lag);
  const inverse = inverted(sums, withEnd, 0);
  const covariance = (i: number, j: number) => (inverse[i]?.[j] ?? 0) * widened;
  const [va, vk, cov] = [covariance(0, 0), covariance(1, 1), covariance(0, 1)];
  const [halfLife, da, dk] =
    order === 0
      ? [initial / (2 * k), 1 / (2 * k), -initial / (2 * k * k)]
      : order === 1
        ? [Math.LN2 / k, 0, -Math.LN2 / (k * k)]
        : [1 / (k * initial), -1 / (k * initial ** 2), -1 / (k * k * initial)];
  // The scatter is one more unknown than those of the law.
  const all = unknowns + 1;
  return {
    order,
    line: transformedLine(read, order, end),
    initial,
    end,
    endU: Math.sqrt(Math.max(0, covariance(2, 2))),
    origin,
    k,
    u: Math.sqrt(Math.max(0, vk)),
    halfLife,
    halfLifeU: Math.sqrt(Math.max(0, da * da * va + dk * dk * vk + 2 * da * dk * cov)),
    residualSd: Math.sqrt(s2),
    residuals,
    lagCorrelation,
    aicc:
      n * Math.log(Math.max(sums.square, 1e-300) / n) +
      2 * all +
      (2 * all * (all + 1)) / Math.max(1, n - all - 1),
    degreesOfFreedom,
  };
}

export interface OrderComparison {
  readonly fits: readonly [OrderFit, OrderFit, OrderFit];
  /** The order that the better judge prefers. */
  readonly best: Order;
  /** The order with the straightest transformed plot, as a class compares. */
  readonly straightest: Order;
  /** Where the course seems to level off, though that was not fitted; null where it does not. */
  readonly levelsOff: number | null;
  /** What was fitted: the readings, or the means of so many neighbors each. */
  readonly fitted: Course;
  readonly each: number;
  /** What the two say, in words. */
  readonly text: Phrase;
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

/** More than this are not fitted one by one. */
const mostFitted = 2000;

/** A pause of so many usual intervals between readings ends a block of them; so does a block of so many usual lengths. */
const [longPause, longBlock] = [10, 3];

/**
 * A course of about so many points at most: of a longer one the means of neighboring readings, so that all that was read counts.
 * Over a block that is short beside the half-life the mean lies on the law (off by its curvature, k²h²/24 of A for a block of h
 * seconds at first order); and means of blocks hang together less than neighbors do, so that their scatter is the better
 * judge of ± (batch means; from memory).
 */
export function condensed(course: Course, most: number): { readonly course: Course; readonly each: number } {
  const { seconds, absorbance } = course;
  const n = seconds.length;
  const each = Math.ceil(n / most);
  if (each <= 1) return { course, each: 1 };
  const usual = ((seconds[n - 1] ?? 0) - (seconds[0] ?? 0)) / (n - 1);
  const means: [number, number][] = [];
  let [count, time, sum, began] = [0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    if (count === 0) began = seconds[i] ?? NaN;
    count++;
    time += seconds[i] ?? NaN;
    sum += absorbance[i] ?? NaN;
    const next = seconds[i + 1] ?? Infinity;
    const goesOn =
      next - (seconds[i] ?? NaN) <= longPause * usual && next - began <= longBlock * each * usual;
    if (count < each && goesOn) continue;
    means.push([time / count, sum / count]);
    [count, time, sum] = [0, 0, 0];
  }
  return { course: { seconds: means.map(([t]) => t), absorbance: means.map(([, a]) => a) }, each };
}

const orderWords = [msg`zero`, msg`first`, msg`second`] as const;
export const orderWord = (order: Order): Phrase => orderWords[order];

/** The end absorbance of a first-order course, where fitting one is so much better that hardly anything speaks for zero. */
function levelsOffAt(course: Course, best: OrderFit): number | null {
  const withEnd = fitOrder(course, 1, true);
  const better = best.aicc - withEnd.aicc > hardlyAnySupport;
  return better && Math.abs(withEnd.end) > 3 * withEnd.endU && Math.abs(withEnd.end) > 0.005
    ? withEnd.end
    : null;
}

/**
 * Zero, first and second order fitted to the same readings: straight lines through A, ln A and 1/A with their correlation
 * coefficients, and least squares on the absorbances themselves, judged by Akaike's criterion for small samples (Burnham and
 * Anderson, Model Selection, 2.4; from memory). Transforming makes the smallest absorbances count most; AICc does not. With
 * `fitEnd` first and second order level off at an absorbance that is fitted too. Of a course that is longer than `most` the
 * means of neighbors are fitted.
 */
export function compareOrders(
  read: Course,
  fitEnd = false,
  most: number = mostFitted,
): Result<OrderComparison> {
  const n = read.seconds.length;
  if (n < fewestReadings) {
    return failure(
      msg`${n === 1 ? msg`One reading lies` : msg`${n} readings lie`} in the window: an order needs ${fewestReadings} at least`,
    );
  }
  const { course, each } = condensed(read, most);
  const [low, high] = [Math.min(...course.absorbance), Math.max(...course.absorbance)];
  if (high - low === 0) return failure(msg`The absorbance does not change, so there is no rate`);
  const fits = ([0, 1, 2] as const).map((order) => fitOrder(course, order, fitEnd));
  const least = Math.min(...fits.map((f) => f.aicc));
  const likelihoods = fits.map((f) => Math.exp(-(f.aicc - least) / 2));
  const total = likelihoods.reduce((a, b) => a + b, 0);
  const judged = fits.map((f, i): OrderFit => ({ ...f, evidence: (likelihoods[i] ?? 0) / total }));
  const best = judged.reduce((a, b) => (b.aicc < a.aicc ? b : a));
  const straightest = judged.reduce((a, b) => (Math.abs(b.line.r) > Math.abs(a.line.r) ? b : a));
  const second = [...judged].sort((a, b) => b.evidence - a.evidence)[1];
  const word = capitalized(orderWord(best.order));
  const sure =
    best.evidence > 0.95
      ? msg`${word} order clearly fits best`
      : msg`${word} order fits best, but ${orderWord(second?.order ?? 0)} order cannot be ruled out (relative likelihood ${((second?.evidence ?? 0) * 100).toFixed(0)} %): follow the reaction for longer`;
  const agreed =
    straightest.order === best.order
      ? msg`. Its plot is also the straightest`
      : msg`. The ${orderWord(straightest.order)}-order plot is the straightest, but its transformation gives the smallest absorbances, and their noise, the most weight`;
  const hanging =
    best.lagCorrelation > 0.4
      ? msg`. The residuals are correlated in time: the rate law may change during the run, or the instrument drifted; narrow the window`
      : "";
  const levelsOff = fitEnd ? null : levelsOffAt(course, best);
  const ended = levelsOff
    ? msg`. The absorbance levels off near ${levelsOff.toFixed(3)}, not at zero: fit the end absorbance, or k will be wrong`
    : "";
  return success({
    levelsOff,
    fitted: course,
    each,
    fits: judged as unknown as OrderComparison["fits"],
    best: best.order,
    straightest: straightest.order,
    text: msg`${sure}${agreed}${hanging}${ended}.`,
  });
}

/** Half width of the 95 % interval of a rate constant. */
export const halfInterval = ({ u, degreesOfFreedom }: OrderFit): number =>
  studentT(0.95, degreesOfFreedom) * u;
