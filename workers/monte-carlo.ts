import "~/core/stages/engines";
import { expose } from "comlink";
import { type Result, success } from "~/core/result";
import { propagate } from "~/core/montecarlo";
import { programOf } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import type { Drawn } from "~/core/montecarlo";

/** What the page asks of the worker: draws of one stage's result. */
export interface DrawRequest {
  readonly record: RunRecord;
  readonly stageKey: string;
  readonly draws: number;
  readonly seed: number;
}

export interface DrawFound {
  readonly drawn: Drawn;
  readonly milliseconds: number;
}

/** Draws one stage's result; `onProgress` is told how far it is, from 0 to 1. To cancel, the page ends the worker. */
export function draw(request: DrawRequest, onProgress: (part: number) => void): Result<DrawFound> {
  const { record, stageKey, draws, seed } = request;
  const program = programOf(record, stageKey);
  if (!program.ok) return program;
  const started = performance.now();
  const running = propagate(program.value, { draws, seed });
  for (let step = running.next(); ; step = running.next()) {
    if (step.done) return success({ drawn: step.value, milliseconds: performance.now() - started });
    onProgress(step.value);
  }
}

expose(draw);
