import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import lockfile from "proper-lockfile";

/** The folder is already served by another process. Its message is for the person at the terminal. */
export class FolderInUseError extends Error {
  override readonly name = "FolderInUseError";
}

/** How long a lock that nobody refreshes is respected, ms; a killed server leaves one behind. */
const staleAfterMs = 5000;

function ownerOf(pidFile: string): number | null {
  try {
    const pid = Number(readFileSync(pidFile, "utf8"));
    process.kill(pid, 0);
    return pid;
  } catch {
    return null;
  }
}

/**
 * Takes the data folder for this process alone and returns how to give it back. Two processes on one folder would destroy
 * the database in it. A living owner is refused at once; a lock left behind by a killed process is waited out.
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  mkdirSync(folder, { recursive: true });
  const pidFile = path.join(folder, "server.pid");
  const owner = ownerOf(pidFile);
  const retries = owner === null ? { retries: 16, minTimeout: 500, maxTimeout: 500 } : 0;
  try {
    const release = await lockfile.lock(folder, {
      lockfilePath: path.join(folder, "server.lock"),
      stale: staleAfterMs,
      update: 1500,
      retries,
    });
    writeFileSync(pidFile, String(process.pid));
    return async () => {
      rmSync(pidFile, { force: true });
      await release();
    };
  } catch (error) {
    if ((error as { code?: string }).code !== "ELOCKED") throw error;
    const by = owner === null ? "another process" : `process ${owner}`;
    throw new FolderInUseError(
      `The data folder ${folder} is in use by ${by}. ` +
        "Stop that server first, or start this one on another folder with DATA_DIR.",
    );
  }
}
