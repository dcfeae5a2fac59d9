import { v7 as newId } from "uuid";
import type { RunRecord } from "../../core/run";
import type { Connection } from "../database/types";
import { runEvent } from "../database/schema";
import type { StandingReading } from "../../formats/answers";
import type { ChangeDetail, Inverse } from "../database/stored";

/**
 * How a change ended. `refused`: understood, but the data forbid it (422, 409); `malformed`: it names what is not in this
 * run (400); `missing`: there is no such run (404). Only `done` has changed anything.
 */
export type Outcome =
  | { readonly status: "done" }
  | {
      readonly status: "refused" | "malformed" | "missing";
      readonly message: string;
      readonly proposal?: string;
      readonly present?: StandingReading;
    };

export const done: Outcome = { status: "done" };
export const refused = (message: string, proposal?: string): Outcome =>
  proposal === undefined ? { status: "refused", message } : { status: "refused", message, proposal };
export const malformed = (message: string): Outcome => ({ status: "malformed", message });

export interface Change {
  readonly db: Connection;
  readonly record: RunRecord;
  readonly person: string;
  readonly now: Date;
}

export async function remember(
  change: Change,
  description: string,
  inverse: Inverse,
  detail: ChangeDetail | null = null,
): Promise<void> {
  const { db, record, person, now } = change;
  await db
    .insert(runEvent)
    .values({ id: newId(), runId: record.id, at: now, person, description, inverse, detail });
}

/** When something happened that waited before it was sent, by this server's clock; never before the run began. */
export const happenedAt = ({ now, record }: Change, heldSeconds: number | undefined): Date =>
  new Date(
    Math.max(
      now.getTime() - 1000 * (heldSeconds ?? 0),
      Math.min(now.getTime(), Date.parse(record.startedAt)),
    ),
  );
