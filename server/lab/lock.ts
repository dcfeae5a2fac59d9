import { execFileSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import lockfile from "proper-lockfile";

/** The folder is already served by another process. Its message is for the person at the terminal. */
export class FolderInUseError extends Error {
  override readonly name = "FolderInUseError";
}

/** How long a lock that nobody refreshes is respected, ms; a killed server leaves one behind. */
const staleAfterMs = 5000;

/** What tells a process from a later one with the same number: when it started. Empty where there is no such process. */
function startOf(pid: number): string {
  try {
    // Field 22 of the process's status, counted behind its name, which may hold spaces.
    return readFileSync(`/proc/${pid}/stat`, "utf8").split(") ").at(-1)?.split(" ")[19] ?? "";
  } catch {
    try {
      return execFileSync("ps", ["-o", "lstart=", "-p", String(pid)], { encoding: "utf8" }).trim();
    } catch {
      return "";
    }
  }
}

/** The living process that holds the folder, even when it is too busy (or stopped) to refresh its lock. */
function ownerOf(pidFile: string): number | null {
  try {
    const [pid = "", start = ""] = readFileSync(pidFile, "utf8").split("\n");
    return start !== "" && startOf(Number(pid)) === start ? Number(pid) : null;
  } catch {
    return null;
  }
}

const inUse = (folder: string, by: string) =>
  new FolderInUseError(
    `The data folder ${folder} is in use by ${by}. ` +
      "Stop that server first, or start this one on another folder with DATA_DIR.",
  );

/**
 * Takes the data folder for this process alone and returns how to give it back. Two processes on one folder would destroy
 * the database in it. A living owner is refused at once; a lock left behind by a killed process is waited out.
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  mkdirSync(folder, { recursive: true });
  const pidFile = path.join(folder, "server.pid");
  const owner = ownerOf(pidFile);
  if (owner !== null) throw inUse(folder, `process ${owner}`);
  try {
    const release = await lockfile.lock(folder, {
      lockfilePath: path.join(folder, "server.lock"),
      stale: staleAfterMs,
      update: 1500,
      retries: { retries: 16, minTimeout: 500, maxTimeout: 500 },
      onCompromised: () => {
        console.error(`The lock on ${folder} was taken away. Stopping, so that the database is not harmed.`);
        process.exit(1);
      },
    });
    writeFileSync(pidFile, `${process.pid}\n${startOf(process.pid)}`);
    return async () => {
      rmSync(pidFile, { force: true });
      await release();
    };
  } catch (error) {
    if ((error as { code?: string }).code !== "ELOCKED") throw error;
    const late = ownerOf(pidFile);
    throw inUse(folder, late === null ? "another process" : `process ${late}`);
  }
}
