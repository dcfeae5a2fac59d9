import { putRunBack, type RunRows } from "../backup/run-rows";
import type { Transacting } from "../database/types";
import { recorded } from "../journal/recorded";
import { rememberDeed } from "./lab";
import { refreshSummary } from "./summary";

export interface RunBack {
  readonly rows: RunRows;
  /** When the backup was made that they come from. */
  readonly backedUpAt: string;
  readonly person: string;
}

/** Puts one run back as a backup has it, in place of what stands there under its id. */
export const bringRunBack = (db: Transacting, back: RunBack, now = new Date()): Promise<void> =>
  recorded(db, "run-back", back, now, async (tx) => {
    const { rows, backedUpAt, person } = back;
    await putRunBack(tx, rows);
    await refreshSummary(tx, rows.runId, now);
    const deed = { about: "run", subjectId: rows.runId, subject: rows.title, person } as const;
    const description = `run restored from the backup of ${backedUpAt.slice(0, 16).replace("T", " ")} UTC`;
    await rememberDeed(tx, { ...deed, description }, now);
  });
