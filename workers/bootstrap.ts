import {
  bootstrapReadOff,
  type Bootstrapped,
  fitCalibration,
  type LineModel,
  type Weighting,
} from "~/core/calibration";

/** What the page asks of the worker: an amount read off a line, again and again from redrawn residuals. */
export interface BootstrapRequest {
  readonly points: readonly { readonly x: number; readonly y: number }[];
  readonly model: LineModel;
  readonly weighting: Weighting;
  readonly readings: readonly number[];
  readonly draws: number;
  readonly seed: number;
}

export interface BootstrapFound {
  readonly found: Bootstrapped;
  readonly milliseconds: number;
}

export type BootstrapMessage =
  | { readonly kind: "progress"; readonly part: number }
  | ({ readonly kind: "done" } & BootstrapFound)
  | { readonly kind: "failed"; readonly message: string };

const post = (message: BootstrapMessage) => {
  postMessage(message);
};

addEventListener("message", ({ data }: MessageEvent<BootstrapRequest>) => {
  const { points, model, weighting, readings, draws, seed } = data;
  const fit = fitCalibration(points, model, weighting);
  if (!fit.ok) return post({ kind: "failed", message: fit.problem.message });
  const started = performance.now();
  const running = bootstrapReadOff(fit.value, readings, { draws, seed });
  for (let step = running.next(); ; step = running.next()) {
    if (step.done)
      return post({ kind: "done", found: step.value, milliseconds: performance.now() - started });
    post({ kind: "progress", part: step.value });
  }
});
