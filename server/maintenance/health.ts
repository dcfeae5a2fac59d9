import { count } from "drizzle-orm";
import { type CheckReport, checkLab, type Finding } from "../backup/check";
import type { LabView } from "../../protocol/lab";
import { type Backup, type BackupReason, listBackups, newestBackup } from "../backup/files";
import { makeBackup } from "../backup/make";
import { inspectClock } from "../clock";
import { labOf } from "../commands/lab";
import { checkJournal } from "../journal/check";
import type { Journal } from "../journal/journal";
import { journalOf } from "../journal/recorded";
import { labFingerprint } from "../lab/signer";
import { dataFolder, startDatabase } from "../lab/current";
import { run } from "../database/schema";

interface Health {
  /** What the last look at the lab found. */
  findings: readonly Finding[];
  checkedAt: string | null;
  /** Why the last backup was not made; null where it was. */
  backupFailed: string | null;
}

const holder = globalThis as { steadyBeadHealth?: Health };
const health = (holder.steadyBeadHealth ??= { findings: [], checkedAt: null, backupFailed: null });

const hourMs = 3_600_000;
/** Once a day by itself. */
const dueAfterMs = 24 * hourMs;
/** Older than two days it is told. */
const tooOldMs = 48 * hourMs;
/** A lab that was only just begun has nothing to lose yet. */
const youngMs = hourMs;

/** Lines of the journal that are carried out again in about a minute. */
const manyLines = 5000;

/**
 * True where a lab is to be backed up: it holds something, is not brand-new, and its newest backup is a day old; or its journal has
 * nothing to go on from (`sinceBackup` is null then), or much to carry out again.
 */
export const backupDue = (
  newest: Date | null,
  lab: { createdAt: Date; runs: number },
  sinceBackup: number | null,
  now: Date,
): boolean => {
  if (lab.runs === 0) return false;
  if (sinceBackup === null || sinceBackup >= manyLines) return true;
  return newest === null
    ? now.getTime() - lab.createdAt.getTime() >= youngMs
    : now.getTime() - newest.getTime() >= dueAfterMs;
};

/**
 * How many lines of the journal would be carried out again after a power cut; null where there is nothing to put the lab together
 * from.
 */
function linesSinceBackup(journal: Journal | null, folder: string): number | null {
  if (!journal) return null;
  const newest = listBackups(folder).find((b) => b.verified && b.journal?.journal === journal.id);
  if (newest?.journal) return journal.head.seq - newest.journal.seq;
  return journal.base !== null && journal.after === 0 ? journal.head.seq : null;
}

/** What is wrong with the backups, in words; null where nothing is. */
export function backupTrouble(
  newest: Date | null,
  lab: { createdAt: Date; runs: number },
  failed: string | null,
  now: Date,
): string | null {
  if (failed !== null) return failed;
  if (lab.runs === 0 || now.getTime() - (newest ?? lab.createdAt).getTime() < tooOldMs) return null;
  return newest === null
    ? "There is no backup of this lab."
    : `The newest backup is ${Math.floor((now.getTime() - newest.getTime()) / (24 * hourMs))} days old.`;
}

async function standing() {
  const { db, lab } = await startDatabase();
  const [row] = await db.select({ runs: count() }).from(run);
  const folder = dataFolder();
  const newest = newestBackup(folder);
  return {
    lab: { createdAt: lab.createdAt, runs: row?.runs ?? 0 },
    newest: newest && new Date(newest.at),
    sinceBackup: linesSinceBackup(journalOf(db), folder),
  };
}

/** Makes a backup of the lab that is open, and remembers how that went. */
export async function backUp(reason: BackupReason): Promise<Backup> {
  const open = await startDatabase();
  try {
    const made = await makeBackup(open, dataFolder(), open.lab.id, reason);
    health.backupFailed = null;
    return made;
  } catch (error) {
    health.backupFailed = error instanceof Error ? error.message : String(error);
    throw error;
  }
}

/** Looks at the lab that is open, and remembers what was found. */
export async function look(sample: number | "all"): Promise<CheckReport> {
  const { db } = await startDatabase();
  const of = await checkLab(db, sample);
  const report = { ...of, findings: [...of.findings, ...(await checkJournal(db, dataFolder()))] };
  health.findings = report.findings;
  health.checkedAt = new Date().toISOString();
  for (const { kind, message } of report.findings)
    if (kind !== "differs")
      console.error(`${message}. See the Lab screen, or ./bin/check, for the ways out.`);
  return report;
}

/** What is wrong with this lab, for the bench: a sentence each. */
export async function troubles(now = new Date()): Promise<string[]> {
  const serious = health.findings.filter(({ kind }) => kind !== "differs");
  const { lab, newest } = await standing();
  const backup = backupTrouble(newest, lab, health.backupFailed, now);
  const { recovered, openedAt } = await startDatabase();
  const lately = now.getTime() - openedAt.getTime() < dueAfterMs;
  return [
    ...(lately ? recovered : []),
    ...(serious.length > 0
      ? [`${serious[0]?.message}${serious.length > 1 ? `, and ${serious.length - 1} more` : ""}.`]
      : []),
    ...(backup ? [backup] : []),
  ];
}

/** How the lab stands, for its screen. */
export async function labView(now = new Date()): Promise<LabView> {
  const { db, recovered } = await startDatabase();
  const { lab, newest, sinceBackup } = await standing();
  const journal = journalOf(db);
  return {
    folder: dataFolder(),
    copies: process.env.BACKUP_DIR ?? null,
    begun: lab.createdAt.toISOString(),
    runs: lab.runs,
    backups: listBackups(dataFolder()).map(({ name, at, reason, bytes, counts, verified }) => ({
      ...{ name, at, reason, bytes },
      runs: counts.run ?? 0,
      verifiedAt: verified?.at ?? null,
    })),
    backupTrouble: backupTrouble(newest, lab, health.backupFailed, now),
    clock: await inspectClock(db, now),
    checkedAt: health.checkedAt,
    findings: health.findings,
    journal: journal && { lines: journal.head.seq, check: journal.head.check, sinceBackup },
    recovered,
    signingKey: labFingerprint(),
    letterhead: (await labOf(db))?.letterhead ?? "",
  };
}

const everyMs = 10 * 60_000;
const firstAfterMs = 60_000;

/** Looks again and again whether the day's backup is due. Gives what ends that. */
export function keepBackups(): () => void {
  const once = async () => {
    const { lab, newest, sinceBackup } = await standing();
    if (backupDue(newest, lab, sinceBackup, new Date())) await backUp("daily");
  };
  const report = (error: unknown) => console.error(error instanceof Error ? error.message : error);
  const first = setTimeout(() => void once().catch(report), firstAfterMs);
  const later = setInterval(() => void once().catch(report), everyMs);
  return () => {
    clearTimeout(first);
    clearInterval(later);
  };
}
