import { flask, solveFor, readCuvette } from "../bench/photometer";
import { follow, type Bench } from "../bench/bench";
import { failure, success, type Result } from "../../result";
import type { StageRecord } from "../../record";
import type { UnknownStage } from "../../method";
import type { CompiledStage } from "../compiled";
import { msg } from "../../text";

/** Two flasks of an unknown whose amount lies at about half of the line. */
export function performUnknown(
  stage: CompiledStage<UnknownStage>,
  record: StageRecord,
  shared: ReadonlyMap<string, number>,
  bench: Bench,
): Result<number> {
  const { definition } = stage;
  const input = definition.inputs.find((i) => i.is === "read-off");
  const known = bench.lines.get(input?.stage ?? "");
  if (!input || !known) return failure(msg`An unknown needs a line`);
  let target: number | null = null;
  for (const number of [1, 2]) {
    const { trial, truths } = flask(stage, number, {}, bench);
    const all = (x: number) => follow(stage, new Map([...shared, ...truths, [input.symbol, x]]), bench);
    const found = (x: number) => all(x).get(definition.result.symbol) ?? NaN;
    target ??= found(0.55 * known.top);
    const x = solveFor(found, target, 2 * known.top);
    const read = readCuvette(input.reading, trial.id, known.intercept + known.slope * x, bench);
    record.trials.push({ ...trial, observations: [...trial.observations, ...read] });
    bench.earlier.set(definition.key, all(x));
  }
  return success(target ?? NaN);
}
