import { eq } from "drizzle-orm";
import { type ChangeProblem, refused } from "../../core/change";
import { isEmptyRun, type RunRecord } from "../../core/run";
import { run } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import type { Asked } from "./asked";
import { rememberDeed } from "./lab";
import { msg } from "~/core/text";

/** Deletes a run in which nothing was ever read; says why where something was. */
export async function deleteRun(
  db: DatabaseConnection,
  record: RunRecord,
  { person, now, from }: Asked,
): Promise<ChangeProblem | null> {
  if (!isEmptyRun(record)) return refused(msg`Readings are never deleted: archive the run instead`).problem;
  const { id, title, startedAt, method } = record;
  await db.delete(run).where(eq(run.id, id));
  const detail = { from: `begun ${startedAt.slice(0, 16).replace("T", " ")}, ${method.title}` };
  const deed = { about: "run", subjectId: id, subject: title, person, from } as const;
  await rememberDeed(db, { ...deed, description: "empty run deleted", detail }, now);
  return null;
}
