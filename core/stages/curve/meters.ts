import {
  branchesOf,
  type Crossing,
  type CurvePoint,
  type CurveReading,
  type CurveSetting,
  type EndByWay,
  jumpsOf,
  nextAddition,
  type AdditionSetting,
  type NextAddition,
  nextOnBranches,
  readCurve,
  undiluted,
  waysTo,
  zeroOfSecond,
} from "../../curves";
import type { CurveInput } from "../../inputs";

/* What is made of the points by what the meter reads: a table, one entry for each. */

/** What the points tell, whatever was read. */
export interface PointsRead {
  readonly reading: CurveReading | null;
  readonly crossing: Crossing | null;
  /** The equivalence points there are, in order, each in all ways. */
  readonly ends: readonly (readonly EndByWay[])[];
}

interface Reader {
  /** Scatter of a reading from point to point, one standard deviation, in what the meter shows. Common practice, no source. */
  readonly scatter: number;
  /** So much of what it shows is one unit of pH, for the advice what to add: the slope of an electrode. */
  readonly perDecade: number;
  readonly read: (points: readonly CurvePoint[], setting: CurveSetting) => PointsRead;
  readonly next: (points: readonly CurvePoint[], found: PointsRead, setting: AdditionSetting) => NextAddition;
}

const byJumps =
  (perDecade: number): Reader["next"] =>
  (points, _found, setting) =>
    nextAddition(
      points.map(({ volume, value }) => ({ volume, value: value / perDecade })),
      { ...setting, until: setting.until / perDecade },
    );

const branches: Pick<Reader, "perDecade" | "read" | "next"> = {
  perDecade: 1,
  read: (points, { flaskMl }) => {
    const found = branchesOf(undiluted(points, flaskMl));
    const degreesOfFreedom = Math.max(1, points.length - 4);
    const end: EndByWay[] = found
      ? [{ way: "branches", volume: found.volume, half: 2 * found.u, degreesOfFreedom }]
      : [];
    return { reading: null, crossing: found, ends: found ? [end] : [] };
  },
  next: (points, { crossing }, setting) => nextOnBranches(points, crossing?.volume ?? null, setting),
};

/** Nernst's slope at 25 °C, mV: by it the advice takes potentials as it takes pH. */
const nernstMv = 59.16;

const readers: Readonly<Record<CurveInput["reads"], Reader>> = {
  pH: {
    scatter: 0.01,
    perDecade: 1,
    read: (points, setting) => {
      const reading = readCurve(points, setting);
      return {
        reading,
        crossing: null,
        ends: reading.ends.map((end) => waysTo(reading, end, setting)),
      };
    },
    next: byJumps(1),
  },
  mV: {
    scatter: 1,
    perDecade: nernstMv,
    read: (points) => {
      const ends = jumpsOf(points).map((jump) => ({ jump, second: zeroOfSecond(points, jump) }));
      const byBase = (points.at(-1)?.value ?? 0) >= (points[0]?.value ?? 0);
      const reading: CurveReading = {
        ...{ byBase, strong: true, fits: [] },
        ends: ends.map((end) => ({ ...end, before: null, beyond: null, halfWay: null })),
      };
      return {
        reading,
        crossing: null,
        ends: reading.ends.map((end) => waysTo(reading, end, { flaskMl: 1, titrant: 1 })),
      };
    },
    next: byJumps(nernstMv),
  },
  absorbance: { ...branches, scatter: 0.002 },
  conductance: { ...branches, scatter: 0.002 },
};

/** How what a meter shows is read. */
export const readerOf = ({ reads }: Pick<CurveInput, "reads">): Reader => readers[reads];
