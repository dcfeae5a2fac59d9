import { eq } from "drizzle-orm";
import { v7 as newId } from "uuid";
import {
  endOfCorrections,
  nextTrialNumber,
  type StageRecord,
  takenBack,
  trialName,
  type TrialRecord,
} from "../../core/record";
import { evaluateRun } from "../../core/evaluate";
import { isEmptyRun, type RunRecord } from "../../core/run";
import { trialWords } from "../../core/text";
import type { RunState } from "../../protocol/answers";
import type { Observe, RunRequest } from "../../protocol/requests";
import type { Connection, Database } from "../database/types";
import { refusalOf } from "../database/refusals";
import { observation, run, runEvent, trial } from "../database/schema";
import type { Inverse } from "../database/stored";
import { addTrace, choose, enter, putAway, setChoice, setTrace, strikeReading } from "./assay-changes";
import { type Change, done, happenedAt, malformed, missing, type Outcome, refused, remember } from "./change";
import { announce } from "../live";
import { beginTimer, endTimer, faded, setTimer, startTimer } from "./timers";
import { setRules, setRulesOf } from "./house-rules-of-run";
import { rememberDeed } from "./lab";
import { lastChange } from "./run-events";
import { loadRunRecord } from "./run-record";
import { loadRunState } from "./run-state";
import { refreshSummary, searchText } from "./runs";
import { recompute, renewShelved, shelve } from "./shelf-of-run";
import { readingSentBefore } from "./sent-before";
import { take, takeBackPartners } from "./take";
import { isOutcome, openStage, openTrial, writeReading } from "./write-reading";

function findTrial(
  record: RunRecord,
  trialId: string,
): { stage: StageRecord; trial: TrialRecord; name: string } | null {
  for (const stage of record.stages) {
    const trial = stage.trials.find((t) => t.id === trialId);
    if (trial) return { stage, trial, name: trialWords(trialName(trial)) };
  }
  return null;
}

async function observe(change: Change, request: Observe): Promise<Outcome> {
  const { record, person } = change;
  const stage = openStage(change, request.stageKey);
  if (isOutcome(stage)) return stage;
  const { trial: sent } = request;
  const sentBefore = readingSentBefore(record, request.stageKey, sent?.id ?? null, request);
  if (sentBefore) return sentBefore;
  const before = stage.record;
  const wrong = sent && (await openTrial(change, stage, sent));
  if (wrong) return wrong;
  const { id, symbol, kind, text, supersedes, reason } = request;
  const written = await writeReading(change, stage, sent?.id ?? null, {
    id,
    symbol,
    kind,
    text,
    supersedes,
    reason,
    source: request.source ?? "typed",
    person: request.person?.trim() || person,
    at: happenedAt(change, request.heldSeconds),
  });
  if (isOutcome(written)) return written;
  // The ± of one value does not belong to what is typed in its place.
  const held = sent ? before.trials.find((t) => t.id === sent.id) : before;
  const partners = await takeBackPartners(
    change,
    { stageId: before.id, trialId: sent?.id ?? null, observations: held?.observations ?? [] },
    request,
  );
  await remember(
    change,
    written.what,
    partners.length > 0 ? { do: "several", of: [written.inverse, ...partners] } : written.inverse,
  );
  return done;
}

type TrialInverse = Extract<Inverse, { do: "trial" }>;

async function setTrial(db: Connection, { trialId, kind, label, struck }: TrialInverse): Promise<void> {
  await db
    .update(trial)
    .set({
      ...(kind === undefined ? {} : { kind }),
      ...(label === undefined ? {} : { label }),
      ...(struck === undefined
        ? {}
        : {
            struckAt: struck ? new Date(struck.at) : null,
            struckBy: struck?.person ?? null,
            struckReason: struck?.reason ?? null,
          }),
    })
    .where(eq(trial.id, trialId));
}

type TrialRequest = Extract<RunRequest, { intent: "strike" | "restore" | "mark" | "label" }>;

async function changeTrial(change: Change, request: TrialRequest): Promise<Outcome> {
  const found = findTrial(change.record, request.trialId);
  if (!found) return missing("This run has no such trial");
  const { trial: before, name } = found;
  const { trialId } = request;
  const apply = async (after: Omit<TrialInverse, "do" | "trialId">, description: string) => {
    await setTrial(change.db, { do: "trial", trialId, ...after });
    const keys = Object.keys(after) as (keyof typeof after)[];
    const inverse = Object.fromEntries(keys.map((key) => [key, before[key]]));
    const detail = {
      ...(after.kind ? { from: before.kind, to: after.kind } : {}),
      ...(after.label === undefined ? {} : { from: before.label ?? "", to: after.label ?? "" }),
      ...(after.struck ? { why: after.struck.reason } : {}),
    };
    await remember(change, description, { do: "trial", trialId, ...inverse }, detail);
    return done;
  };
  switch (request.intent) {
    case "strike": {
      if (before.struck) return refused("This trial is already struck out");
      const struck = { at: change.now.toISOString(), person: change.person, reason: request.reason.trim() };
      return apply({ struck }, `striking out of ${name}`);
    }
    case "restore":
      if (!before.struck) return refused("This trial is not struck out");
      return apply({ struck: null }, `restoring of ${name}`);
    case "mark": {
      if (request.kind === "fine" && before.number === null) {
        const number = nextTrialNumber(found.stage.trials);
        await change.db.update(trial).set({ number }).where(eq(trial.id, trialId));
      }
      return apply(
        { kind: request.kind },
        request.kind === "rough" ? `${name} marked rough` : `${name} made to count`,
      );
    }
    case "label":
      return apply({ label: request.label.trim() || null }, `new name of ${name}`);
  }
}

async function renameRun(
  db: Connection,
  id: string,
  about: { title: string; sample: string; bench: string },
) {
  const [title, sample, bench] = [about.title.trim(), about.sample.trim(), about.bench.trim()];
  const search = searchText({ title, sample, bench });
  await db.update(run).set({ title, sample, bench, search }).where(eq(run.id, id));
}

async function setStatus(change: Change, inverse: Extract<Inverse, { do: "status" }>): Promise<void> {
  const { status, finishedAt } = inverse;
  await change.db
    .update(run)
    .set({ status, finishedAt: finishedAt === null ? null : new Date(finishedAt) })
    .where(eq(run.id, change.record.id));
}

async function changeStatus(change: Change, intent: "finish" | "reopen" | "archive"): Promise<Outcome> {
  const { record, now } = change;
  const evaluation = evaluateRun(record);
  if (intent === "finish" && !evaluation.result)
    return refused("There is no result yet to finish the run with");
  const status = ({ finish: "finished", reopen: "open", archive: "archived" } as const)[intent];
  if (record.status === status) return refused(`The run is already ${status}`);
  const finishedAt = intent === "reopen" ? null : (record.finishedAt ?? now.toISOString());
  await setStatus(change, { do: "status", status, finishedAt });
  const word = { finish: "finishing", reopen: "reopening", archive: "archiving" }[intent];
  if (intent === "finish") await renewShelved(change);
  await remember(change, `${word} of the run`, {
    do: "status",
    status: record.status,
    finishedAt: record.finishedAt,
  });
  return done;
}

async function undo(change: Change, eventId: string): Promise<Outcome> {
  const { db, record } = change;
  const event = await lastChange(db, record.id);
  if (event?.id !== eventId)
    return refused("Something else has been changed since: look again before you undo");
  const taken = await takeBack(change, event.inverse);
  if (taken.status !== "done") return taken;
  const { now, person } = change;
  await db
    .update(runEvent)
    .set({ undone: true, undoneAt: now, undoneBy: person })
    .where(eq(runEvent.id, event.id));
  return done;
}

async function takeBack(change: Change, inverse: Inverse): Promise<Outcome> {
  const { db, record, person, now } = change;
  switch (inverse.do) {
    case "several":
      for (const one of inverse.of) {
        const taken = await takeBack(change, one);
        if (taken.status !== "done") return taken;
      }
      return done;
    case "supersede": {
      const [written] = await db.select().from(observation).where(eq(observation.id, inverse.observationId));
      const holder = record.stages
        .flatMap((s) => [s, ...s.trials])
        .find((h) => h.observations.some((o) => o.id === inverse.observationId));
      // The field may have been corrected and restored since: what stands last is what is taken back.
      const last = written && holder && endOfCorrections(holder.observations, written.id);
      if (!last) return malformed("What should be undone is not there");
      const { stageId, trialId, symbol, kind, unit, source } = written;
      const before = inverse.by === null ? null : inverse.by.replace(",", ".");
      await db.insert(observation).values({
        ...{ stageId, trialId, symbol, kind, unit, source },
        id: newId(),
        text: inverse.by ?? "",
        value: before,
        assignmentId: inverse.assignment ?? null,
        person,
        at: now,
        supersedes: last.id,
        reason: inverse.reason ?? (inverse.by === null ? takenBack : "correction taken back"),
      });
      break;
    }
    case "trial":
      await setTrial(db, inverse);
      break;
    case "choose":
      await setChoice(change, inverse);
      break;
    case "rules":
      await setRules(db, record.id, inverse.houseRulesId);
      break;
    case "timer":
      await setTimer(db, inverse);
      break;
    case "trace":
      await setTrace(db, inverse);
      break;
    case "run": {
      const { title, sample, bench } = inverse;
      await renameRun(db, record.id, { title, sample, bench });
      break;
    }
    case "status":
      await setStatus(change, inverse);
  }
  return done;
}

async function apply(change: Change, request: RunRequest): Promise<Outcome> {
  const { db, record } = change;
  const closed = record.status !== "open";
  switch (request.intent) {
    case "undo":
      return undo(change, request.eventId);
    case "reopen":
    case "archive":
    case "finish":
      return changeStatus(change, request.intent);
    // A timer that still runs can be ended whatever became of its run.
    case "end-timer":
      return endTimer(change, request);
    case "shelve":
      return shelve(change, request);
    case "recompute":
      return recompute(change);
    case "delete":
      if (!isEmptyRun(record)) return refused("Readings are never deleted: archive the run instead");
      await db.delete(run).where(eq(run.id, record.id));
      await rememberDeed(
        db,
        {
          about: "run",
          subjectId: record.id,
          subject: record.title,
          person: change.person,
          description: "empty run deleted",
          detail: {
            from: `begun ${record.startedAt.slice(0, 16).replace("T", " ")}, ${record.method.title}`,
          },
          from: change.from ?? null,
        },
        change.now,
      );
      return done;
    default:
      if (closed) return refused("This run is finished: reopen it to change it");
  }
  switch (request.intent) {
    case "observe":
      return observe(change, request);
    case "enter":
      return enter(change, request);
    case "trace":
      return addTrace(change, request);
    case "put-away":
    case "bring-back":
      return putAway(change, request);
    case "start-timer":
      return startTimer(change, request);
    case "begin-timer":
      return beginTimer(change, request);
    case "faded":
      return faded(change, request);
    case "rules":
      return setRulesOf(change, request);
    case "strike-reading":
    case "restore-reading":
      return strikeReading(change, request);
    case "choose":
      return choose(change, request);
    case "take":
      return take(change, request);
    case "rename": {
      const { title, sample, bench } = record;
      await renameRun(db, record.id, request);
      const words = (about: { title: string; sample: string; bench: string }) =>
        [about.title, about.sample, about.bench].filter((word) => word.trim() !== "").join(", ");
      await remember(
        change,
        "renaming of the run",
        { do: "run", title, sample, bench },
        { from: words(record), to: words(request) },
      );
      return done;
    }
    default:
      return changeTrial(change, request);
  }
}

/** What changes the timers that all screens show: those of open runs, under the run's title. */
const changesTimers: ReadonlySet<RunRequest["intent"]> = new Set([
  "start-timer",
  "begin-timer",
  "end-timer",
  "faded",
  "rename",
  "finish",
  "reopen",
  "archive",
  "delete",
  "undo",
]);

/** How a request on a run ended; one that was carried out comes with the run as it now is, null when it was deleted. */
export type Changed =
  Exclude<Outcome, { status: "done" }> | { readonly status: "done"; readonly state: RunState | null };

/**
 * Carries out one request on a run, all or nothing, and refreshes its summary. The readings are checked by the same rules
 * as in the browser.
 */
export async function changeRun(
  db: Database,
  runId: string,
  request: RunRequest,
  now = new Date(),
  device = "",
  from?: string,
): Promise<Changed> {
  try {
    const made = await db.transaction(async (tx): Promise<Changed> => {
      const record = await loadRunRecord(tx, runId);
      if (!record) return { status: "missing", message: "There is no such run" } as const;
      const outcome = await apply(
        { db: tx, record, person: record.bench, now, ...(from === undefined ? {} : { from }) },
        request,
      );
      if (outcome.status !== "done") throw new NotDone(outcome);
      const changed = await refreshSummary(tx, runId, now);
      return { status: "done", state: changed && (await loadRunState(tx, runId)) };
    });
    if (made.status === "done") {
      announce({ runId, timers: changesTimers.has(request.intent), device });
    }
    return made;
  } catch (error) {
    if (error instanceof NotDone) return error.outcome;
    const refusal = refusalOf(error);
    if (refusal) return refusal;
    throw error;
  }
}

/** Ends a transaction with nothing written: of several readings, those before the one that was refused. */
class NotDone extends Error {
  constructor(readonly outcome: Exclude<Outcome, { status: "done" }>) {
    super(outcome.message);
  }
}
