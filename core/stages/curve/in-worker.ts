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
type ReadElsewhere = (curve: CurveToRead, found: (read: PointsRead | null) => void) => void;

let reader: ReadElsewhere | null = null;

/** Has whole curves read elsewhere from now on; null reads them on the spot again. */
export const readCurvesElsewhere = (elsewhere: ReadElsewhere | null): void => {
  reader = elsewhere;
};

/** Who reads whole curves; null where they are read on the spot. */
export const curveReader = (): ReadElsewhere | null => reader;
