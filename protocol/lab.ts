import { valid } from "./compiled/lab-request";
import type { LabRequest } from "./lab-schemas";
import { checker } from "../formats/validate";

export type { LabRequest } from "./lab-schemas";

export const checkLabRequest = checker<LabRequest>(valid);

/** A backup as the Lab screen lists it. */
export interface BackupView {
  readonly name: string;
  readonly at: string;
  readonly reason: string;
  readonly bytes: number;
  readonly runs: number;
  /** When its copy was opened and found whole; null where nobody has looked. */
  readonly verifiedAt: string | null;
}

/** How the lab stands. */
export interface LabView {
  readonly folder: string;
  readonly copies: string | null;
  readonly begun: string;
  readonly runs: number;
  readonly backups: readonly BackupView[];
  /** What is wrong with the backups, in words. */
  readonly backupTrouble: string | null;
  readonly clock: string | null;
  readonly checkedAt: string | null;
  readonly findings: readonly {
    readonly kind: string;
    readonly message: string;
    readonly runId?: string;
    /** What to do, where that is not restoring. */
    readonly advice?: string;
  }[];
  /** How far its journal has come, with the checksum of the last line; null where none is kept. */
  readonly journal: {
    readonly lines: number;
    readonly check: string;
    /** Lines that would be carried out again after a power cut; null where there is no backup to go on from. */
    readonly sinceBackup: number | null;
  } | null;
  /** What had to be done when it was opened, in words. */
  readonly recovered: readonly string[];
  /** Fingerprint of the key with which it signs what it exports; null where its folder takes no key. */
  readonly signingKey: string | null;
  /** What stands at the head of a report; empty where nothing does. */
  readonly letterhead: string;
}

/** What came of what was asked: said in words. */
export interface LabAnswer {
  readonly done: string | null;
  readonly problem: string | null;
}

/** A run as a backup holds it. */
export interface RunInBackup {
  readonly id: string;
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
  readonly startedAt: string;
  readonly status: string;
}
