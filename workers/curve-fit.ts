import { expose } from "comlink";
import {
  bootstrapFit,
  type BootstrappedFit,
  type CurvePoint,
  type CurveReading,
  type CurveSetting,
  type ReadFit,
} from "~/core/curves";
import { type Result, success } from "~/core/result";

/** What the page asks of the worker: the fit of a whole curve, again and again from redrawn residuals. */
export interface CurveFitRequest {
  readonly points: readonly CurvePoint[];
  readonly reading: CurveReading;
  readonly best: ReadFit;
  readonly setting: CurveSetting;
  readonly draws: number;
  readonly seed: number;
}

export interface CurveFitFound {
  readonly found: BootstrappedFit;
  readonly milliseconds: number;
}

/** Redraws the curve; `onProgress` is told how far it is, from 0 to 1. To cancel, the page ends the worker. */
export function redraw(request: CurveFitRequest, onProgress: (part: number) => void): Result<CurveFitFound> {
  const { points, reading, best, setting, draws, seed } = request;
  const started = performance.now();
  const running = bootstrapFit(points, reading, best, setting, { draws, seed });
  for (let step = running.next(); ; step = running.next()) {
    if (step.done) return success({ found: step.value, milliseconds: performance.now() - started });
    onProgress(step.value);
  }
}

expose(redraw);
