import { constants, gzip } from "node:zlib";
import { promisify } from "node:util";
import type { PGlite, Transaction } from "@electric-sql/pglite";
import type { Database } from "../database/types";
import { recordDeed } from "../commands/lab";
import { journalOf } from "../journal/recorded";
import type { Mark } from "../journal/segments";
import { countRows } from "./check";
import {
  type Backup,
  type BackupReason,
  copyElsewhere,
  listBackups,
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

/** The files of a database at one moment, and how far it had come in its journal: nothing is written meanwhile. */
async function filesOf(client: PGlite): Promise<{ readonly files: Buffer; readonly journal: Mark | null }> {
  await client.exec("checkpoint");
  return client.transaction(async (tx) => {
    const journal = await markIn(tx);
    const dump = await client.dumpDataDir("none");
    return { files: Buffer.from(await dump.arrayBuffer()), journal };
  });
}

/** How far a database has come in its journal. One from before there was one has no such columns, and is backed up before it gets them. */
async function markIn(tx: Transaction): Promise<Mark | null> {
  const known = await tx.query(
    "select 1 from information_schema.columns where table_name = 'lab' and column_name = 'journal'",
  );
  if (known.rows.length === 0) return null;
  const { rows } = await tx.query<Mark>(
    `select journal::text, journal_seq::float8 as seq, journal_check as "check" from lab where journal is not null`,
  );
  return rows[0] ?? null;
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
    const { files, journal } = await filesOf(client);
    const data = await pack(files, { level: constants.Z_BEST_SPEED });
    const written = writeBackup(folder, data, { at: now.toISOString(), reason, labId, counts, journal });
    const verified = await verify(written);
    copyElsewhere(folder, verified);
    prune(folder);
    await cutJournal(db, folder, verified);
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

/**
 * What the verified backup before the newest one holds is in two backups: lines of the journal up to there are not needed any
 * more. The head of the chain goes into the lab's trail.
 */
async function cutJournal(db: Database, folder: string, newest: Backup): Promise<void> {
  const journal = journalOf(db);
  if (!journal || newest.journal?.journal !== journal.id) return;
  const [, before] = listBackups(folder).filter((b) => b.verified && b.journal?.journal === journal.id);
  await journal.rotate();
  if (before?.journal) journal.cut(before.journal.seq);
  const { seq, check } = newest.journal;
  await recordDeed(db, {
    about: "backup",
    subject: "The lab",
    person: "",
    description: "backup made",
    detail: { to: `line ${seq} of the journal, ${check}`, why: newest.reason },
    chain: newest.journal,
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
