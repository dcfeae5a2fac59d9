import { fileWithResults } from "../results/stated";
import type { WriteRun } from "./run-export";

/**
 * The whole run, as `formats/schemas/run-record.schema.json` describes it, with the results that it has here, its chain and the lab's
 * signature.
 */
export const recordJson: WriteRun = (record, { sign }) =>
  `${JSON.stringify(sign(fileWithResults(record)), null, 2)}\n`;
