import { Bug } from "../../result";
import { type Photometer, perform, now, type Bench } from "./bench";
import { perOf } from "../../method";
import { findRoot } from "../../relation";
import type { CompiledStage } from "../compiled";
import type { Observation, TrialRecord } from "../../record";
import { inEnglish } from "../../text";

/** A quiet instrument that shows thousandths: 0.002 of scatter, whatever it shows. Common practice, no source. */
export const quietPhotometer: Photometer = (absorbance, random) =>
  Math.round(1000 * (absorbance + 0.002 * random.normal())) / 1000;

/** Readings of one cuvette as observations. */
function readAbsorbances(
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
  if (!root.ok) throw new Bug(`No amount gives that result: ${inEnglish(root.problem.message)}`);
  return root.value;
}

/** A flask of a photometer's stage: what is taken for it, and what its amount truly is. */
export function flask(
  { definition }: CompiledStage,
  number: number,
  amounts: Readonly<Record<string, number>>,
  bench: Bench,
): { trial: TrialRecord; truths: Map<string, number> } {
  const id = `${definition.key}-trial-${number}`;
  const place = { stage: definition.key, trial: id };
  const own = definition.inputs.filter((input) => perOf(input) === "trial");
  const aimed = Object.fromEntries(
    Object.entries(amounts).map(([symbol, amount]) => [`${definition.key}.${symbol}`, amount]),
  );
  const { truth } = bench.options;
  const aiming: Bench = {
    ...bench,
    options: { ...bench.options, truth: { ...truth, spread: 0, amounts: { ...truth.amounts, ...aimed } } },
  };
  const { observations, truths } = perform({ definition }, own, id, place, aiming);
  bench.clock = aiming.clock;
  return { trial: { id, number, label: null, kind: "fine", struck: null, observations }, truths };
}

/** Readings of one cuvette that truly absorbs as said. */
export function readCuvette(symbol: string, holder: string, truth: number, bench: Bench): Observation[] {
  const { photometer = quietPhotometer, readings: count = 3 } = bench.options;
  const shown = Array.from({ length: count }, () => photometer(truth, bench.world.random));
  return readAbsorbances(symbol, holder, shown, () => now(bench));
}
