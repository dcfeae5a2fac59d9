import type { OpenDatabase } from "../lab/open-database";
import { bringRunBack } from "../commands/bring-run-back";
import { countRows } from "./check";
import type { Backup } from "./files";
import { ask } from "./inspect";
import { makeBackup } from "./make";
import { RestoreError } from "./restore";

/**
 * Puts one run back as a backup has it, after a backup of the lab as it is. A lab that is damaged cannot be backed up whole, and that is
 * when a run is most likely to be put back: then it is done without. Returns the run's title; throws a `RestoreError` where the backup
 * has no such run, and a `BackupError` where a lab that is whole cannot be backed up.
 */
export async function restoreRun(
  open: OpenDatabase,
  folder: string,
  backup: Backup,
  runId: string,
  person: string,
): Promise<string> {
  const rows = await ask("run", backup.file, runId).catch((error: Error) => {
    throw new RestoreError(error.message);
  });
  await makeBackup(open, folder, open.lab.id, "before a restore").catch(async (error: unknown) => {
    if ((await countRows(open.db)).findings.length === 0) throw error;
  });
  await bringRunBack(open.db, { rows, backedUpAt: backup.at, person });
  return rows.title;
}
