import type { RunRecord } from "~/core/run";
import type { RunFile } from "../concluded";

/** What an export needs from the lab that makes it. */
export interface ExportingLab {
  /** A record with its chain, signed by the lab. */
  readonly sign: (file: RunFile) => RunFile;
}

/** Writes a run in one format. */
export type WriteRun = (record: RunRecord, lab: ExportingLab) => string | Promise<Uint8Array<ArrayBuffer>>;
