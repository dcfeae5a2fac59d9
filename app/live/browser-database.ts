import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { StandingReading } from "~/core/change";
import type { RunState } from "~/protocol/answers";
import type { WaitingChange } from "~/protocol/waiting";
import { type Phrase } from "~/core/text";

/** A change that waits in this browser: to be sent, or for someone to say what should become of it. */
export interface UnsentChange extends WaitingChange {
  readonly seq: number;
  readonly runId: string;
  /** Why it was not taken, in words; null while it waits to be sent. */
  readonly refused: Phrase | null;
  /** How often the server answered that it failed on it. */
  readonly tries?: number;
  /** Where another reading stands in its field: both are kept until someone says which it is. */
  readonly standing: StandingReading | null;
}

/** A run as the server last told it to this browser. */
export interface SeenRun {
  readonly runId: string;
  /** The lab that told it. */
  readonly era: string;
  readonly at: number;
  readonly state: RunState;
}

export interface Store extends DBSchema {
  outbox: { key: number; value: Omit<UnsentChange, "seq"> & { seq?: number } };
  /** Holds one row while nobody has cleared this browser's storage. */
  here: { key: string; value: string };
  runs: { key: string; value: SeenRun; indexes: { at: number } };
}

let opened: Promise<IDBPDatabase<Store>> | null = null;

/** What this browser keeps beside texts. Rejects where the browser lets nothing be kept. */
export const browserDatabase = (): Promise<IDBPDatabase<Store>> =>
  (opened ??= openDB<Store>("steady-bead", 3, {
    upgrade: (db, from) => {
      if (from < 1) db.createObjectStore("outbox", { keyPath: "seq", autoIncrement: true });
      if (from < 2) db.createObjectStore("here");
      if (from < 3) db.createObjectStore("runs", { keyPath: "runId" }).createIndex("at", "at");
    },
    // A page of another version, or a person who clears the storage, wants it closed.
    blocking: (_now, _wanted, event) => {
      (event.target as IDBDatabase).close();
      opened = null;
    },
    terminated: () => {
      opened = null;
    },
  }).catch((error: unknown) => {
    // It may open the next time.
    opened = null;
    throw error;
  }));
