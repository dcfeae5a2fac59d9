import { rateLaw } from "../kinetics";
import type { RandomStream } from "../montecarlo";
import { unitOf } from "../quantity";
import { evaluateNumber, findRoot } from "../relation";
import type { CalibrationStage, CompiledMethod, RateStage } from "../method";
import type { Observation, TraceRecord } from "../record";

/** Shows a true absorbance as an instrument would: with its noise, to the digits that it has. */
export type Photometer = (absorbance: number, random: RandomStream) => number;

/** A quiet instrument that shows thousandths: 0.002 of scatter, whatever it shows. Common practice, no source. */
export const quietPhotometer: Photometer = (absorbance, random) =>
  Math.round(1000 * (absorbance + 0.002 * random.normal())) / 1000;

/** What the color of a calibration truly follows: A = intercept + slope x, x in base units. */
export interface TrueLine {
  readonly intercept: number;
  readonly slope: number;
  /** The amount of the strongest standard, base units. */
  readonly top: number;
}

/** The line that a method's strongest standard tells; a standard addition starts from a third of it. */
export function trueLine({ strongest, line }: CalibrationStage, top: number): TrueLine {
  const intercept = line.cut === undefined ? 0 : strongest / 3;
  return { intercept, slope: (strongest - intercept) / top, top };
}

/** Readings of one cuvette as observations. */
export function readAbsorbances(
  symbol: string,
  holder: string,
  readings: readonly number[],
  at: () => string,
): Observation[] {
  return readings.map((reading, i) => ({
    id: `${holder}/${symbol}/absorbance/${i}`,
    symbol,
    kind: "absorbance",
    text: reading.toFixed(3),
    value: reading.toFixed(3),
    unit: "",
    source: "typed",
    person: "simulated bench",
    at: at(),
    supersedes: null,
    reason: null,
  }));
}

/** Solves a result, which grows or falls steadily with one symbol, for that symbol; between nothing and `most`. */
export function solveFor(result: (x: number) => number, target: number, most: number): number {
  const root = findRoot((x) => result(x) - target, 1e-9 * most, most, 1e-12 * most);
  if (!root.ok) throw new Error(`No amount gives that result: ${root.problem.message}`);
  return root.value;
}

/** A course of absorbance by a rate law, each second for 200 s. */
export function trueCourse(
  trialId: string,
  k: number,
  photometer: Photometer,
  random: RandomStream,
  at: string,
): TraceRecord {
  const x = Array.from({ length: 201 }, (_, i) => i);
  return {
    id: `${trialId}/course`,
    trialId,
    name: "course",
    xUnit: "s",
    x,
    absorbance: x.map((t) => photometer(rateLaw(1, 0.9, k, t), random)),
    source: "instrument",
    person: "simulated bench",
    at,
    removed: null,
  };
}

/** Concentrations of what is in excess, where nothing else is aimed at: halves and doubles. */
export const excesses = [0.05, 0.1, 0.2];

/** The result that a rate stage is laid out for, base units. */
export const presumedRate = ({ presumed, result }: RateStage): number =>
  presumed * unitOf(result.unit).factor;

/** About what a flask of the series reads, by the amount that is typed for it; of none, what nothing added reads. */
export function usualAbsorbance(definition: CalibrationStage, typed: string | null): number {
  const strongest = Number(definition.series.values.at(-1));
  const line = trueLine(definition, strongest > 0 ? strongest : 1);
  return line.intercept + line.slope * Number(typed ?? 0);
}

/** The rate constant of one course, 1/s, that makes the result what is said, for what is typed of its cuvette (base units). */
export function usualConstant(
  method: CompiledMethod,
  stage: RateStage,
  typed: ReadonlyMap<string, number>,
  result: number,
): number {
  const lines = method.assays.get(stage.key)?.lines ?? [];
  const found = (k: number) => {
    const numbers = new Map(typed).set(stage.rate.symbol, k);
    const scope = { numbers, stoichiometry: method.stoichiometry };
    for (const { symbol, expression } of lines) numbers.set(symbol, evaluateNumber(expression, scope));
    return numbers.get(stage.result.symbol) ?? NaN;
  };
  return solveFor(found, result, fastest);
}

/** No cuvette is followed whose color is gone within a tenth of a second, 1/s. */
export const fastest = 10;
