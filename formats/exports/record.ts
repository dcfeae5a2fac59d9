import { fileOfRecord } from "../concluded";
import type { WriteRun } from "./run-export";

/** The whole run, as `formats/schemas/run-record.schema.json` describes it, with its chain and the lab's signature. */
export const recordJson: WriteRun = (record, { sign }) =>
  `${JSON.stringify(sign(fileOfRecord(record)), null, 2)}\n`;
