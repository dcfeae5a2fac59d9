import type { RunRecord } from "~/core/run";
import type { Phrase } from "~/core/text";
import type { RunFile } from "../concluded";

/** What an export needs from the lab that makes it. */
export interface ExportingLab {
  /** A record with its chain, signed by the lab. */
  readonly sign: (file: RunFile) => RunFile;
}

/** One format in which a run leaves the lab. */
export interface RunExport {
  /** In addresses. */
  readonly key: string;
  readonly label: Phrase;
  /** What it is good for, in a sentence. */
  readonly use: Phrase;
  /** Ending of the file's name. */
  readonly ending: string;
  readonly type: string;
  readonly write: (
    record: RunRecord,
    lab: ExportingLab,
  ) => string | Promise<string | Uint8Array<ArrayBuffer>>;
}
