import { v7 as newId } from "uuid";
import type { RunRecord } from "../../core/run";
import type { Connection } from "../database/types";
import { runEvent } from "../database/schema";
import { clockSeen } from "./lab";
import type { StandingReading } from "../../protocol/answers";
import type { ChangeDetail, Inverse } from "../database/stored";

/**
 * How a change ended. `refused`: understood, but the data forbid it (422); `malformed`: it cannot be understood here (400);
 * `missing`: it names a run, a trial or a reading that is not there (404); `conflict`: it uses an id that something else has (409).
 * Only `done` has changed anything.
 */
export type Outcome =
  | { readonly status: "done" }
  | {
      readonly status: "refused" | "malformed" | "missing" | "conflict";
      readonly message: string;
      readonly proposal?: string;
      readonly present?: StandingReading;
    };

export const done: Outcome = { status: "done" };
export const refused = (message: string, proposal?: string): Outcome =>
  proposal === undefined ? { status: "refused", message } : { status: "refused", message, proposal };
export const missing = (message: string): Outcome => ({ status: "missing", message });
export const conflict = (message: string): Outcome => ({ status: "conflict", message });
export const malformed = (message: string): Outcome => ({ status: "malformed", message });

export interface Change {
  readonly db: Connection;
  readonly record: RunRecord;
  readonly person: string;
  readonly now: Date;
  /** The address that it came from. */
  readonly from?: string;
}

export async function remember(
  change: Change,
  description: string,
  inverse: Inverse,
  detail: ChangeDetail | null = null,
): Promise<void> {
  const { db, record, person, now } = change;
  await db.insert(runEvent).values({
    ...{ id: newId(), runId: record.id, at: now, person, description, inverse, detail },
    receivedFrom: change.from ?? null,
  });
  await clockSeen(db, now);
}

/** When something happened that waited before it was sent, by this server's clock; never before the run began. */
export const happenedAt = ({ now, record }: Change, heldSeconds: number | undefined): Date =>
  new Date(
    Math.max(
      now.getTime() - 1000 * (heldSeconds ?? 0),
      Math.min(now.getTime(), Date.parse(record.startedAt)),
    ),
  );
