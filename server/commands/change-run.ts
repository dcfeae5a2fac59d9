import { and, asc, desc, eq, isNotNull, notInArray, sql } from "drizzle-orm";
import {
  applyChange,
  type Changed,
  type ChangeContext,
  type ChangeProblem,
  changesTimers,
  type Inverse,
  isRunChange,
  missing,
  countersignedWords,
  passedOver,
  redoOf,
  refused,
  type RunChange,
} from "../../core/change";
import { changeContext } from "../../core/evaluate";
import type { ChangeAnswer, RunState, RunStep } from "../../protocol/answers";
import { stepBetween } from "../../protocol/step";
import type { RunRequest } from "../../protocol/requests";
import { refusalOf } from "../database/refusals";
import { RolledBack } from "../database/rolled-back";
import { lab, runEvent } from "../database/schema";
import type { DatabaseConnection, Database } from "../database/types";
import { recorded } from "../journal/recorded";
import { labSeen, newId } from "../journal/under-way";
import { announce } from "../live";
import { bottleTaken } from "../queries/bottle";
import { timersOf } from "../queries/timers";
import { rememberRun, stateOf, storedRun, type StoredRun } from "../queries/stored-run";
import type { Asked } from "./asked";
import { deleteRun } from "./delete-run";
import { clockSeen } from "./lab";
import { recompute, renewShelved, shelve } from "./shelve";
import { storeDifference } from "./store-run";
import { writeRun } from "./summary";
import { ruleProblems } from "~/core/rules";
import { type Phrase, inEnglish } from "~/core/text";

/** The row of a change in the trail; with it, in one statement, how far this server's clock has come. */
async function writeEvent(
  db: DatabaseConnection,
  runId: string,
  { inverse, entry }: Changed,
  { person, now, from }: Asked,
): Promise<StoredRun["last"]> {
  const id = newId();
  const { description, detail = null } = entry;
  const clock = db.$with("clock").as(db.update(lab).set(labSeen(now)).returning({ id: lab.id }));
  await db
    .with(clock)
    .insert(runEvent)
    .values({
      ...{ id, runId, at: now, person, inverse, detail, receivedFrom: from },
      description: inEnglish(description),
      phrase: typeof description === "string" ? null : description,
    });
  return { id, description, inverse };
}

/** What an event says, as screens show it. */
const phrase = sql<Phrase>`coalesce(${runEvent.phrase}, to_jsonb(${runEvent.description}))`;

/** Marks the change that was taken back with what would make it again, and finds the one before it. */
async function markUndone(
  db: DatabaseConnection,
  runId: string,
  { eventId, redo }: { readonly eventId: string; readonly redo: Inverse },
  { person, now }: Asked,
): Promise<StoredRun["last"]> {
  await clockSeen(db, now);
  await db
    .update(runEvent)
    .set({ undone: true, undoneAt: now, undoneBy: person, redo })
    .where(eq(runEvent.id, eventId));
  const [earlier] = await db
    .select({ id: runEvent.id, description: phrase, inverse: runEvent.inverse })
    .from(runEvent)
    .where(
      and(
        eq(runEvent.runId, runId),
        eq(runEvent.undone, false),
        notInArray(sql`${runEvent.inverse} ->> 'do'`, [...passedOver]),
      ),
    )
    .orderBy(desc(runEvent.seq))
    .limit(1);
  return earlier ?? null;
}

/** The undone change that can be made again now; the one that was just made again can no more. */
async function nextRedo(
  db: DatabaseConnection,
  runId: string,
  madeAgain: string,
): Promise<StoredRun["next"]> {
  await db.update(runEvent).set({ redo: null }).where(eq(runEvent.id, madeAgain));
  const { id, inverse, redo } = runEvent;
  const [next] = await db
    .select({ id, description: phrase, inverse, redo })
    .from(runEvent)
    .where(and(eq(runEvent.runId, runId), isNotNull(redo)))
    .orderBy(asc(runEvent.seq))
    .limit(1);
  return next?.redo ? { ...next, redo: next.redo } : null;
}

/** Once something else is changed, what was undone before stays so. */
const forgetRedo = (db: DatabaseConnection, runId: string) =>
  db
    .update(runEvent)
    .set({ redo: null })
    .where(and(eq(runEvent.runId, runId), isNotNull(runEvent.redo)));

/** Writes what the trail has of a change, and finds what undo and redo would do now. */
async function eventRow(
  db: DatabaseConnection,
  stored: StoredRun,
  request: RunChange,
  { changed, context }: { readonly changed: Changed; readonly context: ChangeContext },
  asked: Asked,
): Promise<Pick<StoredRun, "last" | "next">> {
  const { record, last, next } = stored;
  if (request.intent === "undo" && last) {
    const redo = redoOf(record, last.inverse, context);
    const { id, description, inverse } = last;
    const before = await markUndone(db, record.id, { eventId: id, redo }, asked);
    return { last: before, next: { id, description, inverse, redo } };
  }
  const event = await writeEvent(db, record.id, changed, asked);
  if (request.intent === "redo") return { last: event, next: await nextRedo(db, record.id, request.eventId) };
  if (passedOver.includes(changed.inverse.do)) return { last, next };
  if (next) await forgetRedo(db, record.id);
  return { last: event, next: null };
}

/** The run after a change, null where it was deleted, and the step to it where what was written is known here. */
interface Made {
  readonly state: RunState | null;
  readonly step: RunStep | null;
}

/** Applies a change of the record, and writes what became of it. */
async function change(
  db: DatabaseConnection,
  stored: StoredRun,
  request: RunChange,
  asked: Asked,
): Promise<Made> {
  const { record, revision } = stored;
  const context = changeContext({
    now: asked.now.toISOString(),
    person: asked.person,
    newId: () => newId(),
    ...{ last: stored.last, next: stored.next },
    wrongRules: (rules) => ruleProblems(rules)[0]?.message ?? null,
    bottle: request.intent === "take" ? await bottleTaken(db, request.assignmentId) : null,
  });
  const applied = applyChange(record, request, context);
  if (!applied.ok) throw new RolledBack(applied.problem);
  // It was made before, or says what stands already.
  if (!applied.value) return { state: stateOf(stored), step: null };
  const changed = applied.value;
  const own = await storeDifference(db, record, changed.record, asked.now);
  const { last, next } = await eventRow(db, stored, request, { changed, context }, asked);
  if (request.intent === "finish") await renewShelved(db, changed.record, asked);
  await writeRun(db, changed.record, own, asked.now);
  const { houseRulesId = stored.houseRulesId } = own;
  const now: StoredRun = { record: changed.record, houseRulesId, revision: revision + 1, last, next };
  rememberRun(record.id, now);
  const state = stateOf(now);
  return { state, step: stepBetween(stateOf(stored), state) };
}

/** What the server alone can do with a run. */
async function beside(
  db: DatabaseConnection,
  stored: StoredRun,
  request: Exclude<RunRequest, RunChange>,
  asked: Asked,
): Promise<Made> {
  const { record, revision } = stored;
  // Its bottles may be put on the shelf; nothing of the run itself is changed.
  if (record.countersigned && request.intent !== "shelve")
    throw new RolledBack(refused(countersignedWords(record.countersigned.person)).problem);
  const problem =
    request.intent === "shelve"
      ? await shelve(db, record, request, asked)
      : request.intent === "recompute"
        ? await recompute(db, record, asked)
        : await deleteRun(db, record, asked);
  if (problem) throw new RolledBack(problem);
  if (request.intent === "delete") return { state: null, step: null };
  await writeRun(db, record, {}, asked.now);
  return { state: { ...stateOf(stored), revision: revision + 1 }, step: null };
}

/** What all screens are told, those of other runs too, is no more than this, characters. */
const mostTold = 8_000;

const isSmall = ({ patch }: RunStep): boolean => JSON.stringify(patch).length <= mostTold;

/**
 * Carries out one request on a run, all or nothing: the run is read once, changed by the same function as in the browser, and
 * what became other is written. The answer carries the run as it now is; null when it was deleted.
 */
export async function changeRun(
  db: Database,
  runId: string,
  request: RunRequest,
  now = new Date(),
  device = "",
  from: string | null = null,
): Promise<ChangeAnswer> {
  try {
    const command = { runId, request, device, from };
    const { state, step } = await recorded(db, "run", command, now, async (tx) => {
      const stored = await storedRun(tx, runId);
      if (!stored) throw new RolledBack(missing("There is no such run").problem);
      const asked = { person: stored.record.bench, now, from };
      return isRunChange(request) ? change(tx, stored, request, asked) : beside(tx, stored, request, asked);
    });
    const timed = !isRunChange(request) || changesTimers(request);
    const timers = timed && (state === null ? [] : timersOf(state.record));
    announce({ runId, timers, device, step: step && isSmall(step) ? step : null });
    return { status: "done", state, step };
  } catch (error) {
    if (error instanceof RolledBack) return error.problem as ChangeProblem;
    const refusal = refusalOf(error);
    if (refusal) return refusal;
    throw error;
  }
}
