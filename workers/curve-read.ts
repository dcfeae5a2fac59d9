import { expose } from "comlink";
import { type CurveToRead, readerOf } from "~/core/stages";

/** Reads a whole curve, with its fits, away from the page. */
export const readCurveAway = ({ reads, points, setting }: CurveToRead) =>
  readerOf({ reads }).read(points, setting);

expose(readCurveAway);
