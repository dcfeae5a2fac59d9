import "~/core/stages/engines";
import { randomStream } from "../montecarlo";
import { type Result, success } from "../result";
import { perOf } from "../method";
import {
  compiledMethod,
  compiledStage,
  performStage,
  type Bench,
  carefulHands,
  perform,
  type SimulatedRun,
  type SimulateOptions,
  startedAt,
  World,
} from "../stages";
import { evaluateRun } from "../evaluate";
import type { RunRecord } from "../run";
import type { StageRecord } from "../record";

/**
 * A whole run of any method as a bench with a known truth would make it: glass, balance, solids and atomic weights are off
 * by draws from the very causes that the evaluation states, readings are rounded as they are read, and each stage goes on
 * until its set is closed. The same seed gives the same run. Says so when a titer cannot be had, as beyond the burette.
 */
export function simulateRun(options: SimulateOptions): Result<SimulatedRun> {
  const { method, houseRules, errors = carefulHands, seed } = options;
  const compiled = compiledMethod(method);
  const bench: Bench = {
    compiled,
    world: new World(randomStream(seed)),
    options,
    errors,
    earlier: new Map(),
    lines: new Map(),
    closed: (key) => evaluateRun(record()).stages.find((s) => s.key === key)?.done === true,
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
    const performed = performStage(stage, stageRecord, shared.truths, bench);
    if (!performed.ok) return performed;
    truths.set(key, performed.value);
  }
  return success({ record: record(), truths });
}
