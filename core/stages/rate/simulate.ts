import { flask, solveFor, quietPhotometer } from "../bench/photometer";
import { success, type Result } from "../../result";
import { follow, now, type Bench, type Photometer } from "../bench/bench";
import { evaluateNumber } from "../../relation";
import type { CompiledMethod, CompiledStage } from "../compiled";
import { unitOf } from "../../quantity";
import type { RateStage } from "../../method";
import { rateLaw } from "../../kinetics";
import type { TraceRecord, StageRecord } from "../../record";
import type { RandomStream } from "../../montecarlo";

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

/** Concentrations of the excess reagent, where nothing else is aimed at: halves and doubles. */
export const excesses = [0.05, 0.1, 0.2];

/** The result that a rate stage is laid out for, base units. */
export const presumedRate = ({ presumed, result }: RateStage): number =>
  presumed * unitOf(result.unit).factor;

/** The rate constant of one course, 1/s, that makes the result what is said, for what is typed of its cuvette (base units). */
export function usualConstant(
  { stages, stoichiometry }: CompiledMethod,
  stage: RateStage,
  typed: ReadonlyMap<string, number>,
  result: number,
): number {
  const lines = stages.get(stage.key)?.lines ?? [];
  const found = (k: number) => {
    const numbers = new Map(typed).set(stage.rate.symbol, k);
    const scope = { numbers, stoichiometry };
    for (const { symbol, expression } of lines) numbers.set(symbol, evaluateNumber(expression, scope));
    return numbers.get(stage.result.symbol) ?? NaN;
  };
  return solveFor(found, result, fastest);
}

/** No cuvette is followed whose color is gone within a tenth of a second, 1/s. */
export const fastest = 10;

/** Three courses, with another excess each where the order in that is asked for. */
export function performRate(
  stage: CompiledStage<RateStage>,
  record: StageRecord,
  shared: ReadonlyMap<string, number>,
  bench: Bench,
): Result<number> {
  const { definition } = stage;
  const { rate, result } = definition;
  const target = presumedRate(definition);
  const { photometer = quietPhotometer } = bench.options;
  excesses.forEach((excess, i) => {
    const { trial, truths } = flask(
      stage,
      i + 1,
      rate.excess === undefined ? {} : { [rate.excess]: excess },
      bench,
    );
    const found = (k: number) =>
      follow(stage, new Map([...shared, ...truths, [rate.symbol, k]]), bench).get(result.symbol) ?? NaN;
    const k = solveFor(found, target, fastest);
    record.trials.push(trial);
    record.traces = [
      ...(record.traces ?? []),
      trueCourse(trial.id, k, photometer, bench.world.random, now(bench)),
    ];
  });
  return success(target);
}
