import { expose } from "comlink";
import { type Result, success } from "~/core/result";
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

/** Redraws the line; `onProgress` is told how far it is, from 0 to 1. To cancel, the page ends the worker. */
export function redraw(
  request: BootstrapRequest,
  onProgress: (part: number) => void,
): Result<BootstrapFound> {
  const { points, model, weighting, readings, draws, seed } = request;
  const fit = fitCalibration(points, model, weighting);
  if (!fit.ok) return fit;
  const started = performance.now();
  const running = bootstrapReadOff(fit.value, readings, { draws, seed });
  for (let step = running.next(); ; step = running.next()) {
    if (step.done) return success({ found: step.value, milliseconds: performance.now() - started });
    onProgress(step.value);
  }
}

expose(redraw);
