import { RunRecordSchema } from "~/core/run";
import { checker } from "./validate";

/** Checks that something read from outside is a run record. */
export const checkRunRecord = checker(RunRecordSchema);
