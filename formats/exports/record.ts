import { msg } from "~/core/text";
import { fileOfRecord } from "../concluded";
import type { RunExport } from "./run-export";

/** The whole run, as `formats/schemas/run-record.schema.json` describes it, with its chain and the lab's signature. */
export const recordJson: RunExport = {
  key: "record",
  label: msg`Run record, signed (JSON)`,
  use: msg`Everything that was read, with the method: bin/recompute computes it again, bin/verify tells whether it was altered.`,
  ending: "json",
  type: "application/json; charset=utf-8",
  write: (record, { sign }) => `${JSON.stringify(sign(fileOfRecord(record)), null, 2)}\n`,
};
