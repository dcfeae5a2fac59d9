import { valid } from "./compiled/run-record";
import type { RunFile } from "./concluded";
import { checker, pathChecker } from "./validate";

/** A run of a whole class with its courses is long, and is read from a file. */
const mostValues = 5_000_000;

/** Checks that something read from outside is a run record. */
export const checkRunRecord = checker<RunFile>(valid, mostValues);

/** All that is wrong with the shape of a run record, by path. */
export const recordShapeProblems = pathChecker(valid, mostValues);
