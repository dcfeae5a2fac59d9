import { chosenBackup, type Replaced, restoreLab } from "../backup/restore";
import { restoreRun } from "../backup/restore-run";
import { backupsDone } from "../backup/make";
import { dataFolder, startDatabase, withDatabaseClosed } from "../lab/current";
import { announce } from "../live";
import { look } from "./health";
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

/** Puts one run back as a backup has it, in the lab that is open. Returns its title. */
export async function restoreOneRun(which: string, runId: string, person: string): Promise<string> {
  const folder = dataFolder();
  const open = await startDatabase();
  const title = await restoreRun(open, folder, chosenBackup(folder, which), runId, person);
  announce({ runId, timers: true, device: "", step: null });
  await look(20);
  return title;
}
