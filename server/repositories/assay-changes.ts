import { eq } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { unitsLike } from "../../core/quantity";
import type { ComputedStage } from "../../core/method";
import { endOfCorrections, takenBack } from "../../core/record";
import type { AddTrace, Enter, RunRequest } from "../../protocol/requests";
import { observation, stage as stageTable, trace } from "../database/schema";
import type { Inverse } from "../database/stored";
import type { Connection } from "../database/types";
import { type Change, done, happenedAt, malformed, missing, type Outcome, refused, remember } from "./change";
import { readingSentBefore, traceSentBefore } from "./sent-before";
import { isOutcome, openStage, openTrial, writeReading } from "./write-reading";

/** Many readings at once, all or none. What stands in a field already and says the same is left as it is. */
export async function enter(change: Change, request: Enter): Promise<Outcome> {
  const stage = openStage(change, request.stageKey);
  if (isOutcome(stage)) return stage;
  const inverses: Inverse[] = [];
  let what = "";
  for (const { trial, readings } of request.rows) {
    if (trial) {
      const wrong = await openTrial(change, stage, trial);
      if (wrong) return wrong;
    }
    for (const { person, ...reading } of readings) {
      const sent = readingSentBefore(change.record, request.stageKey, trial?.id ?? null, reading);
      if (sent?.status === "done") continue;
      if (sent) return sent;
      const written = await writeReading(change, stage, trial?.id ?? null, {
        ...reading,
        supersedes: null,
        reason: null,
        source: request.source,
        person: person.trim() || change.person,
        at: happenedAt(change, request.heldSeconds),
      });
      if (isOutcome(written)) {
        if (written.status === "done") continue;
        const where = trial?.label ? `${trial.label}: ` : "";
        return { ...written, message: `${where}${written.message}` };
      }
      inverses.unshift(written.inverse);
      what = written.what;
    }
  }
  const [only] = inverses;
  if (!only) return done;
  const words = inverses.length === 1 ? what : `${inverses.length} readings`;
  await remember(change, words, inverses.length === 1 ? only : { do: "several", of: inverses });
  return done;
}

/** A spectrum of a stage, or the course of a trial, which is begun with it. */
export async function addTrace(change: Change, request: AddTrace): Promise<Outcome> {
  const { db, record, now } = change;
  const sent = traceSentBefore(record, request);
  if (sent) return sent;
  const stage = openStage(change, request.stageKey);
  if (isOutcome(stage)) return stage;
  const { x, absorbance, trialId } = request;
  if (x.length !== absorbance.length)
    return malformed(`There are ${x.length} points but ${absorbance.length} absorbances`);
  const back = x.findIndex((value, i) => i > 0 && value <= (x[i - 1] ?? 0));
  if (back !== -1)
    return refused(
      `Point ${back + 1}: ${x[back]} ${request.xUnit} does not lie beyond the ${x[back - 1]} before it`,
    );
  const takes = request.xUnit === "s" ? stage.definition.kind === "rate" : trialId === null;
  if (!takes) return malformed("No such course is taken in this stage");
  const inverses: Inverse[] = [{ do: "trace", traceId: request.id, removed: removal(change, takenBack) }];
  if (trialId !== null) {
    const wrong = await openTrial(change, stage, { id: trialId, kind: "fine" });
    if (wrong) return wrong;
    for (const reading of request.readings) {
      const written = await writeReading(change, stage, trialId, {
        ...reading,
        supersedes: null,
        reason: null,
        source: "typed",
        person: request.person || change.person,
      });
      if (isOutcome(written)) return written;
      inverses.push(written.inverse);
    }
  }
  const { id, name, xUnit, source } = request;
  await db.insert(trace).values({
    id,
    stageId: stage.record.id,
    trialId,
    name: name.trim(),
    xUnit,
    x,
    absorbance,
    source,
    person: request.person.trim() || change.person,
    at: now,
  });
  const kind = xUnit === "nm" ? "spectrum" : "course";
  await remember(change, name.startsWith(kind) ? name.trim() : `${kind} ${name.trim()}`, {
    do: "several",
    of: inverses,
  });
  return done;
}

const removal = ({ person, now }: Change, reason: string) => ({ at: now.toISOString(), person, reason });

export async function setTrace(
  db: Connection,
  { traceId, removed }: Extract<Inverse, { do: "trace" }>,
): Promise<void> {
  await db
    .update(trace)
    .set({
      removedAt: removed ? new Date(removed.at) : null,
      removedBy: removed?.person ?? null,
      removedReason: removed?.reason ?? null,
    })
    .where(eq(trace.id, traceId));
}

export async function putAway(
  change: Change,
  request: Extract<RunRequest, { traceId: string }>,
): Promise<Outcome> {
  const { traceId } = request;
  const found = change.record.stages.flatMap((s) => s.traces ?? []).find((t) => t.id === traceId);
  if (!found) return missing("This run has no such spectrum or course");
  const away = request.intent === "put-away";
  if (away === (found.removed !== null))
    return refused(away ? "It is put away already" : "It is there already");
  await setTrace(change.db, {
    do: "trace",
    traceId,
    removed: request.intent === "put-away" ? removal(change, request.reason.trim()) : null,
  });
  const words = `${away ? "putting away" : "bringing back"} of ${found.name}`;
  await remember(change, words, { do: "trace", traceId, removed: found.removed });
  return done;
}

/** Strikes one reading of many out, or brings it back; the reading itself stays, with the reason. */
export async function strikeReading(
  change: Change,
  request: Extract<RunRequest, { observationId: string }>,
): Promise<Outcome> {
  const { db, record, person, now } = change;
  const { observationId } = request;
  const holder = record.stages
    .flatMap((s) => [
      { stageId: s.id, trialId: null, observations: s.observations },
      ...s.trials.map((t) => ({ stageId: s.id, trialId: t.id, observations: t.observations })),
    ])
    .find((h) => h.observations.some((o) => o.id === observationId));
  const end = holder && endOfCorrections(holder.observations, observationId);
  if (!holder || !end) return missing("This run has no such reading");
  if (end.kind !== "absorbance" && end.kind !== "transmittance")
    return malformed("Only one reading of many is struck out by itself");
  if (end.id !== observationId) return refused("It was changed meanwhile: look again");
  const striking = request.intent === "strike-reading";
  if (striking === (end.value === null))
    return refused(striking ? "It is struck out already" : "It counts already");
  const back = holder.observations.find((o) => o.id === end.supersedes);
  if (!striking && !back) return malformed("There is nothing to bring back");
  const id = newId();
  const reason = request.intent === "strike-reading" ? request.reason.trim() : "restored";
  await db.insert(observation).values({
    id,
    stageId: holder.stageId,
    trialId: holder.trialId,
    symbol: end.symbol,
    kind: end.kind,
    text: striking ? "" : (back?.text ?? ""),
    value: striking ? null : (back?.value ?? null),
    unit: end.unit,
    source: "typed",
    person,
    at: now,
    supersedes: end.id,
    // That word alone means that an entry was never meant to be.
    reason: reason === takenBack ? `${reason} by hand` : reason,
  });
  await remember(
    change,
    striking ? `striking out of the reading ${end.text}` : `restoring of the reading ${back?.text}`,
    {
      do: "supersede",
      observationId: id,
      by: striking ? end.text : null,
      ...(striking ? {} : { reason: end.reason ?? "" }),
    },
  );
  return done;
}

/** What can be chosen for a stage, by name. */
function choicesOf(definition: ComputedStage): Partial<Record<string, readonly string[]>> {
  switch (definition.kind) {
    case "calibration":
      return {
        model: ["line", "origin", "quadratic"],
        weighting: ["none", "1/s²", "1/x", "1/x²"],
        zero: ["in", "out"],
        blank: ["zeroed", "deducted"],
      };
    case "unknown":
      return { unit: unitsLike(definition.result.unit) };
    case "rate":
      return { order: ["0", "1", "2"], end: ["fitted"] };
    default:
      return {};
  }
}

/** What is taken for a stage in place of what its method takes; an empty value goes back to the method. */
export async function choose(
  change: Change,
  { stageKey, name, value }: Extract<RunRequest, { intent: "choose" }>,
): Promise<Outcome> {
  const stage = openStage(change, stageKey);
  if (isOutcome(stage)) return stage;
  const allowed = choicesOf(stage.definition);
  if (value !== "" && !allowed[name]?.includes(value)) return malformed("This cannot be chosen here");
  const before = stage.record.choices?.[name] ?? null;
  const inverse: Inverse = { do: "choose", stageId: stage.record.id, name, value: before };
  await setChoice(change, { ...inverse, value: value || null });
  await remember(change, `choice of ${name}: ${value || "as the method"}`, inverse);
  return done;
}

export async function setChoice(
  { db, record }: Change,
  { stageId, name, value }: Extract<Inverse, { do: "choose" }>,
): Promise<void> {
  const now = record.stages.find((s) => s.id === stageId)?.choices ?? {};
  const others = Object.fromEntries(Object.entries(now).filter(([key]) => key !== name));
  await db
    .update(stageTable)
    .set({ choices: value === null ? others : { ...others, [name]: value } })
    .where(eq(stageTable.id, stageId));
}
