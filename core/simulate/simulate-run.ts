import { randomStream } from "../montecarlo";
import { unitOf } from "../quantity";
import { failure, type Result, success } from "../result";
import { compiledMethod, compiledStage, type CompiledTitration, perOf } from "../method";
import { evaluateRun } from "../evaluate";
import { replicatesNeeded } from "../rules";
import type { RunRecord } from "../run";
import type { StageRecord } from "../record";
import { performAssay } from "./assay";
import {
  type Bench,
  carefulHands,
  follow,
  perform,
  type SimulatedRun,
  type SimulateOptions,
  startedAt,
} from "./bench";
import { makeTrial } from "./titrate";
import { World } from "./world";

/**
 * A whole run of any method as a bench with a known truth would make it: glass, balance, solids and atomic weights are off
 * by draws from the very causes that the evaluation states, readings are rounded as they are read, and each stage goes on
 * until its set is closed. The same seed gives the same run. Says so when a titer cannot be had, as beyond the burette.
 */
export function simulateRun(options: SimulateOptions): Result<SimulatedRun> {
  const { method, houseRules, truth, errors = carefulHands, seed, mostTrials = 8 } = options;
  const compiled = compiledMethod(method);
  const bench: Bench = {
    world: new World(randomStream(seed)),
    options,
    errors,
    earlier: new Map(),
    lines: new Map(),
    clock: 0,
  };
  const truths = new Map<string, number>();
  const stages: StageRecord[] = [];
  const record = (): RunRecord => ({
    format: "steady-bead/run",
    formatVersion: 1,
    id: `simulated-${method.id}-${seed}`,
    title: `Simulated: ${method.title}`,
    sample: "made up",
    bench: "simulated bench",
    status: "open",
    startedAt,
    finishedAt: null,
    method,
    houseRules,
    stages,
  });
  for (const definition of method.stages) {
    const { key } = definition;
    const stageRecord: StageRecord = { id: key, key, observations: [], trials: [] };
    stages.push(stageRecord);
    const stage = compiledStage(compiled, key);
    if (!stage) continue;
    const once = definition.inputs.filter((input) => perOf(input) === "run");
    const place = { stage: key, trial: key, once: true };
    const shared = perform(stage, once, key, place, bench);
    stageRecord.observations.push(...shared.observations);
    const assay = compiled.assays.get(key);
    if (assay) {
      truths.set(key, performAssay(assay, stageRecord, shared.truths, bench));
      continue;
    }
    if (!("titer" in stage)) {
      const made = follow(stage, shared.truths, bench);
      bench.earlier.set(key, made);
      truths.set(key, made.get(definition.result.symbol) ?? NaN);
      continue;
    }
    const least = replicatesNeeded(houseRules.agreement);
    for (let number = 1; number <= mostTrials; number++) {
      const made = makeTrial(stage as CompiledTitration, shared.truths, number, bench);
      if (!made.ok) return failure(`${definition.title}: ${made.problem.message}`);
      stageRecord.trials.push(made.value.trial);
      bench.earlier.set(key, made.value.truths);
      if (number < least) continue;
      const found = evaluateRun(record()).stages.find((s) => s.key === key);
      if (found?.kind === "titration" && found.done) break;
    }
    truths.set(key, (truth.results[key] ?? NaN) * unitOf(definition.result.unit).factor);
  }
  return success({ record: record(), truths });
}
