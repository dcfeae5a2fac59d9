import { AsyncLocalStorage } from "node:async_hooks";
import { createHash } from "node:crypto";
import { sql } from "drizzle-orm";
import { v7 } from "uuid";
import { lab } from "../database/schema";
import type { Line } from "./line";

/** The command that is being carried out. */
interface UnderWay {
  /** Its line in the journal; null where none is kept. */
  readonly line: Line | null;
  ids: number;
  /** True once it wrote something. */
  wrote: boolean;
}

/** Kept on the global object so that a reloaded module in development finds it again. */
const holder = globalThis as { steadyBeadUnderWay?: AsyncLocalStorage<UnderWay> };
const underWay = (holder.steadyBeadUnderWay ??= new AsyncLocalStorage<UnderWay>());

export const commandUnderWay = (): UnderWay | undefined => underWay.getStore();

/** Carries out a command; says beside what came of it whether it wrote something. */
export async function carriedOut<T>(line: Line | null, work: (command: UnderWay) => Promise<T>): Promise<T> {
  const command: UnderWay = { line, ids: 0, wrote: false };
  return underWay.run(command, () => work(command));
}

/**
 * The id of a new row. Within a command that has a line it follows from the line and from how many came before it, so that a
 * command that is replayed makes the same rows again.
 */
export function newId(at?: Date): string {
  const command = underWay.getStore();
  const msecs = at?.getTime();
  if (!command?.line) return v7(msecs === undefined ? {} : { msecs });
  const { id, at: accepted } = command.line;
  const random = createHash("sha256").update(`${id} ${command.ids++}`).digest().subarray(0, 16);
  return v7({ msecs: msecs ?? Date.parse(accepted), random, seq: command.ids });
}

/**
 * What the lab's own row says after a command: how far this server's clock has come, and the journal. Whatever writes says it in
 * its own transaction.
 */
export function labSeen(now: Date) {
  const command = underWay.getStore();
  if (command) command.wrote = true;
  const line = command?.line;
  return {
    clockHigh: sql`greatest(${lab.clockHigh}, ${now.toISOString()}::timestamptz)`,
    ...(line ? { journalSeq: line.seq, journalCheck: line.check } : {}),
  };
}
