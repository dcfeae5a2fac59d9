import { constants, gzip } from "node:zlib";
import { promisify } from "node:util";
import type { PGlite } from "@electric-sql/pglite";
import type { Database } from "../database/types";
import { countRows } from "./check";
import {
  type Backup,
  type BackupReason,
  copyElsewhere,
  markVerified,
  prune,
  setAside,
  writeBackup,
} from "./files";
import { ask } from "./inspect";

/** A backup could not be made, or did not stand the look at it. Its message is for people. */
export class BackupError extends Error {
  override readonly name = "BackupError";
}

export interface BackedUp {
  readonly client: PGlite;
  readonly db: Database;
}

const pack = promisify(gzip);

/** The files of a database at one moment: nothing is written while they are read. */
async function filesOf(client: PGlite): Promise<Buffer> {
  await client.exec("checkpoint");
  const files = await client.transaction(() => client.dumpDataDir("none"));
  return Buffer.from(await files.arrayBuffer());
}

let running: Promise<unknown> = Promise.resolve();

/** Once no backup is being made. */
export const backupsDone = (): Promise<unknown> => running;

/**
 * Makes an exact copy of a lab in its folder (and on the other disk, where there is one), opens the copy and computes its runs
 * again, and removes the backups that are kept no longer. One at a time; work goes on meanwhile. Throws a `BackupError`.
 */
export function makeBackup(
  { client, db }: BackedUp,
  folder: string,
  labId: string,
  reason: BackupReason,
  now = new Date(),
): Promise<Backup> {
  const made = running.then(async () => {
    const { counts } = await countRows(db);
    const data = await pack(await filesOf(client), { level: constants.Z_BEST_SPEED });
    const written = writeBackup(folder, data, { at: now.toISOString(), reason, labId, counts });
    const verified = await verify(written);
    copyElsewhere(folder, verified);
    prune(folder);
    return verified;
  });
  running = made.catch(() => undefined);
  return made.catch((error: unknown) => {
    if (error instanceof BackupError) throw error;
    throw new BackupError(
      `The backup is not complete: ${error instanceof Error ? error.message : String(error)}`,
    );
  });
}

/** Opens the copy and looks at all of it; a copy that cannot be read is no backup. */
async function verify(backup: Backup): Promise<Backup> {
  const report = await ask("verify", backup.file).catch((error: Error) => {
    setAside(backup);
    throw new BackupError(`The backup was written, but its copy cannot be opened: ${error.message}`);
  });
  const damaged = report.findings.find(({ kind }) => kind === "damaged");
  if (damaged) {
    setAside(backup);
    throw new BackupError(`The backup was written, but its copy is damaged: ${damaged.message}`);
  }
  return markVerified(backup, { at: new Date().toISOString(), runs: report.runs });
}
