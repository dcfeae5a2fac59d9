import { chosenBackup, type Replaced, RestoreError, restoreLab } from "../backup/restore";
import { ask } from "../backup/inspect";
import { putRunBack } from "../backup/run-rows";
import { backupsDone } from "../backup/make";
import { database, dataFolder, withDatabaseClosed } from "../database/current";
import { announce } from "../live";
import { rememberDeed } from "../repositories/lab";
import { refreshSummary } from "../repositories/runs";
import { backUp, look } from "./health";
import { paused } from "./pause";

/**
 * Puts a backup in the place of the lab that is open: requests wait meanwhile, and all screens load anew afterwards. `own` requests
 * are being answered that asked for it.
 */
export function restoreOpenLab(which: string, own: number, person = ""): Promise<Replaced> {
  const folder = dataFolder();
  const backup = chosenBackup(folder, which);
  return paused("The lab is being restored from a backup: this takes some seconds", own, async () => {
    try {
      await backupsDone();
      return await withDatabaseClosed(() => restoreLab(folder, backup, person));
    } finally {
      announce({ reload: true });
    }
  });
}

/** Puts one run back as a backup has it, after a backup of the lab as it is. */
export async function restoreOneRun(which: string, runId: string, person: string): Promise<string> {
  const backup = chosenBackup(dataFolder(), which);
  const rows = await ask("run", backup.file, runId).catch((error: Error) => {
    throw new RestoreError(error.message);
  });
  await backUp("before a restore").catch((error: Error) => {
    // A lab with a damaged page cannot be backed up whole; that is when a run is most likely to be restored.
    console.error(error.message);
  });
  const db = await database();
  await putRunBack(db, rows);
  const now = new Date();
  await refreshSummary(db, runId, now);
  await rememberDeed(db, {
    about: "run",
    subjectId: runId,
    subject: rows.title,
    person,
    description: `run restored from the backup of ${backup.at.slice(0, 16).replace("T", " ")} UTC`,
  });
  announce({ runId, timers: true, device: "" });
  await look(20);
  return rows.title;
}
