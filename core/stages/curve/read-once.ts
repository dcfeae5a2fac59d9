import type { CurvePoint, CurveSetting } from "../../curves";
import type { CurveInput } from "../../inputs";
import { curveReader } from "./in-worker";
import { type PointsRead, readerOf } from "./meters";

/* Readings of the same points, in the same way, are worked out once: a fit takes a while. */

const readBefore = new Map<string, PointsRead>();
const mostRead = 64;
/** Curves that somebody else is reading. */
const away = new Set<string>();

const keyOf = (points: readonly CurvePoint[], { reads }: CurveInput, setting: CurveSetting): string =>
  JSON.stringify([reads, setting, points.map(({ volume, value }) => [volume, value])]);

function keep(key: string, read: PointsRead): PointsRead {
  readBefore.set(key, read);
  const [oldest] = readBefore.keys();
  if (readBefore.size > mostRead && oldest !== undefined) readBefore.delete(oldest);
  return read;
}

/** What points tell, on the spot. */
export function readOnce(
  points: readonly CurvePoint[],
  input: CurveInput,
  setting: CurveSetting,
): PointsRead {
  const key = keyOf(points, input, setting);
  return readBefore.get(key) ?? keep(key, readerOf(input).read(points, setting));
}

/** What a whole curve tells, with its fits; null while somebody else is still at it. */
export function readWhole(
  points: readonly CurvePoint[],
  input: CurveInput,
  setting: CurveSetting,
): PointsRead | null {
  const worker = curveReader();
  const key = keyOf(points, input, setting);
  if (!worker || readBefore.has(key)) return readOnce(points, input, setting);
  if (away.has(key)) return null;
  away.add(key);
  worker({ reads: input.reads, points, setting }, (read) => {
    away.delete(key);
    keep(key, read ?? readerOf(input).read(points, setting));
  });
  return null;
}
