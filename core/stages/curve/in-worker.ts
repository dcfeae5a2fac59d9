import type { CurvePoint, CurveSetting } from "../../curves";
import type { CurveInput } from "../../inputs";
import type { PointsRead } from "./meters";

/** A whole curve to be read, which takes a tenth of a second or more. */
export interface CurveToRead {
  readonly reads: CurveInput["reads"];
  readonly points: readonly CurvePoint[];
  readonly setting: CurveSetting;
}

/** Reads a curve somewhere else, in a worker, and gives what it found; `read` is null where that did not come about. */
type ReadInWorker = (curve: CurveToRead, found: (read: PointsRead | null) => void) => void;

let reader: ReadInWorker | null = null;

/** Has whole curves read by a worker from now on; null reads them at once again. */
export const readCurvesInWorker = (worker: ReadInWorker | null): void => {
  reader = worker;
};

/** Who reads whole curves; null where they are read on the spot. */
export const curveReader = (): ReadInWorker | null => reader;
