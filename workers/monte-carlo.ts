import { propagate } from "~/core/montecarlo";
import { programOf } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import type { Drawn } from "~/core/montecarlo";

/** What the page asks of the worker: draws of one stage's result. To cancel, the page ends the worker. */
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

export type DrawMessage =
  | { readonly kind: "progress"; readonly part: number }
  | ({ readonly kind: "done" } & DrawFound)
  | { readonly kind: "failed"; readonly message: string };

const post = (message: DrawMessage) => {
  postMessage(message);
};

addEventListener("message", ({ data }: MessageEvent<DrawRequest>) => {
  const { record, stageKey, draws, seed } = data;
  const program = programOf(record, stageKey);
  if (!program.ok) return post({ kind: "failed", message: program.problem.message });
  const started = performance.now();
  const running = propagate(program.value, { draws, seed });
  for (let step = running.next(); ; step = running.next()) {
    if (step.done) {
      return post({ kind: "done", drawn: step.value, milliseconds: performance.now() - started });
    }
    post({ kind: "progress", part: step.value });
  }
});
