import { isDay } from "../../core/timing";
import { and, asc, desc, eq, isNotNull } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { ancestorsOf } from "../../core/prepare";
import { inUnit, standardUncertainty, unitOf } from "../../core/quantity";
import { type ComputedEvaluation, resultQuantity } from "../../core/stages";
import { evaluateRun } from "../../core/evaluate";
import { presentObservation } from "../../core/record";
import type { RunRecord, UsedSolution } from "../../core/run";
import type { RunRequest } from "../../protocol/requests";
import type { ResultChange, RunShelf } from "../../protocol/shelf";
import { assignment, assignmentSource, recomputation, solution } from "../database/schema";
import type { Connection } from "../database/types";
import { type Change, done, malformed, type Outcome, refused } from "./change";
import { assign, bottlesOf, keptDecimals, rememberBottle, solutionById, solutionCode } from "./shelf";

/** Assignments that hold in a record now, up to a stage and with it; in all of it where none is named. */
function usedIn(record: RunRecord, upTo?: string): string[] {
  const last = upTo === undefined ? record.stages.length - 1 : record.stages.findIndex((s) => s.key === upTo);
  return record.stages
    .slice(0, last + 1)
    .flatMap((stage) =>
      stage.observations.flatMap((o) =>
        o.assignment && presentObservation(stage.observations, o.symbol, o.kind)?.id === o.id
          ? [o.assignment]
          : [],
      ),
    );
}

/** For each bottle, the bottles that its present concentration stands on. */
export async function shelfLineage(db: Connection): Promise<Map<string, string[]>> {
  const newest = await db
    .selectDistinctOn([assignment.solutionId], { id: assignment.id, solutionId: assignment.solutionId })
    .from(assignment)
    .orderBy(assignment.solutionId, desc(assignment.seq));
  const links = await db
    .select({ of: assignmentSource.assignmentId, source: assignment.solutionId })
    .from(assignmentSource)
    .innerJoin(assignment, eq(assignment.id, assignmentSource.sourceId));
  return new Map(
    newest.map(({ id, solutionId }) => [solutionId, links.filter((l) => l.of === id).map((l) => l.source)]),
  );
}

/** What a stage found that goes on a shelf. */
function found(record: RunRecord, stageKey: string) {
  const stage = evaluateRun(record).stages.find((s) => s.key === stageKey);
  if (!stage || stage.kind === "conclude") return null;
  const { result } = stage.definition;
  const q = resultQuantity(stage);
  if (result.assigns === undefined || !q) return null;
  return {
    stage,
    formula: result.assigns,
    unit: result.unit,
    ...keptDecimals(inUnit(q, result.unit), standardUncertainty(q) / unitOf(result.unit).factor),
  };
}

/** Puts what a stage found on the shelf, and tells what it stands on. */
export async function shelve(
  change: Change,
  request: Extract<RunRequest, { intent: "shelve" }>,
): Promise<Outcome> {
  const { db, record, person, now } = change;
  const there = found(record, request.stageKey);
  if (!there) return malformed("This stage finds nothing that goes on the shelf");
  if (!there.stage.done) return refused("The set is not closed yet: its result does not go on the shelf");
  if (request.restandardizeBy !== "" && !isDay(request.restandardizeBy))
    return refused("There is no such day");
  const sources = usedIn(record, request.stageKey);
  let solutionId = request.solutionId;
  if (solutionId === null) {
    if (request.name.trim() === "") return refused("Give the new bottle a name");
    solutionId = newId({ msecs: now.getTime() });
    await db.insert(solution).values({
      id: solutionId,
      form: "solution",
      formula: there.formula,
      name: request.name.trim(),
      madeAt: now,
      madeBy: person,
      amountUnit: "mL",
      restandardizeBy: request.restandardizeBy || null,
      hazards: "",
      note: "",
    });
  } else {
    const bottle = (await solutionById(db, solutionId))?.solution;
    if (!bottle) return refused("This bottle is no longer on the shelf: look again");
    if (bottle.formula !== there.formula)
      return refused(`${bottle.name} is not what this stage standardizes`);
    const circle = await circleOf(db, record, solutionId, sources);
    if (circle) return refused(circle);
    const [last] = await db
      .select()
      .from(assignment)
      .where(eq(assignment.solutionId, solutionId))
      .orderBy(desc(assignment.seq))
      .limit(1);
    if (last?.runId === record.id && last.stageKey === request.stageKey && last.value === there.value)
      return refused(`${bottle.code} has this concentration already`);
    if (request.restandardizeBy)
      await db
        .update(solution)
        .set({ restandardizeBy: request.restandardizeBy, revision: bottle.revision + 1 })
        .where(eq(solution.id, solutionId));
  }
  await assign(db, {
    solutionId,
    at: now,
    person,
    how: there.stage.kind === "titration" ? "standardized" : "weighed",
    value: there.value,
    plusMinus: there.plusMinus,
    shape: "normal",
    unit: there.unit,
    runId: record.id,
    stageKey: request.stageKey,
    sources,
  });
  await rememberBottle(
    db,
    solutionId,
    person,
    "concentration given by a run",
    { to: `${there.value} ${there.unit}`, why: record.title },
    now,
    change.from ?? null,
  );
  return done;
}

/** A bottle whose concentration would stand on itself, by way of a standard that it fixed before: said in words, or null. */
async function circleOf(
  db: Connection,
  record: RunRecord,
  solutionId: string,
  sources: readonly string[],
): Promise<string | null> {
  const used = (record.solutions ?? []).filter((s) => sources.includes(s.assignmentId));
  const lineage = await shelfLineage(db);
  const through = used.find(
    (s) => s.solutionId === solutionId || ancestorsOf(s.solutionId, lineage).has(solutionId),
  );
  return through
    ? `It would stand on itself: ${through.code}, ${through.name}, was fixed by this very bottle. Standardize it against something else`
    : null;
}

/** Bottles that this run has fixed before get what it finds now, when it is finished again with another value. */
export async function renewShelved(change: Change): Promise<void> {
  const { db, record } = change;
  const earlier = await db
    .selectDistinctOn([assignment.solutionId, assignment.stageKey])
    .from(assignment)
    .where(and(eq(assignment.runId, record.id), isNotNull(assignment.stageKey)))
    .orderBy(assignment.solutionId, assignment.stageKey, desc(assignment.seq));
  for (const { solutionId, stageKey, value } of earlier) {
    const there = stageKey === null ? null : found(record, stageKey);
    if (!there || stageKey === null || !there.stage.done || there.value === value) continue;
    await shelve(change, { intent: "shelve", stageKey, solutionId, name: "", restandardizeBy: "" });
  }
}

interface NewerUse {
  readonly used: UsedSolution;
  readonly now: {
    readonly id: string;
    readonly value: string;
    readonly plusMinus: string;
    readonly shape: string;
  };
}

/** Bottles of a run that have been given another concentration since. */
async function newerThanUsed(db: Connection, record: RunRecord): Promise<NewerUse[]> {
  const holding = new Set(usedIn(record));
  const newer: NewerUse[] = [];
  for (const used of record.solutions ?? []) {
    if (!holding.has(used.assignmentId)) continue;
    const [now] = await db
      .select()
      .from(assignment)
      .where(eq(assignment.solutionId, used.solutionId))
      .orderBy(desc(assignment.seq))
      .limit(1);
    if (now && now.id !== used.assignmentId) newer.push({ used, now });
  }
  return newer;
}

/** The record as it would be with the newest concentrations. */
function withNewest(record: RunRecord, newer: readonly NewerUse[]): RunRecord {
  const of = new Map(newer.map(({ used, now }) => [used.assignmentId, now]));
  return {
    ...record,
    stages: record.stages.map((stage) => ({
      ...stage,
      observations: stage.observations.map((o) => {
        const now = o.assignment ? of.get(o.assignment) : undefined;
        if (!now) return o;
        const text = o.kind === "given" || o.kind === "purity" ? now.value : now.plusMinus;
        return { ...o, text, value: text, assignment: now.id };
      }),
    })),
  };
}

const resultsIn = (record: RunRecord): Map<string, { stage: string; name: string; text: string }> =>
  new Map(
    evaluateRun(record).stages.flatMap((stage) =>
      stage.kind === "conclude" ? [] : shownResults(stage).map((r) => [`${stage.key} ${r.name}`, r] as const),
    ),
  );

function shownResults(stage: ComputedEvaluation) {
  const { title, result } = stage.definition;
  return [
    ...(stage.shown ? [{ stage: title, name: result.name, text: stage.shown.text }] : []),
    ...stage.also.map(({ definition: { name }, shown }) => ({ stage: title, name, text: shown.text })),
  ];
}

/** Computes a finished run again with the newest concentrations; the result that it was finished with stays. */
export async function recompute({ db, record, person, now }: Change): Promise<Outcome> {
  if (record.status === "open") return refused("This run is open: take the newer concentration in its stage");
  const newer = await newerThanUsed(db, record);
  if (newer.length === 0) return refused("None of its bottles has been given another concentration since");
  const before = resultsIn(record);
  const after = resultsIn(withNewest(record, newer));
  const changes: ResultChange[] = [...before].flatMap(([key, { stage, name, text }]) => {
    const again = after.get(key)?.text ?? "no result";
    return again === text ? [] : [{ stage, name, before: text, after: again }];
  });
  await db.insert(recomputation).values({
    id: newId(),
    runId: record.id,
    at: now,
    person,
    changes,
    replaced: newer.map(
      ({ used, now: { value } }) =>
        `${used.code} ${used.name}: ${value} instead of ${used.value} ${used.unit}`,
    ),
  });
  return done;
}

/** What the shelf has to do with a run: bottles to take from, what it has put there, and what is newer since. */
export async function shelfOfRun(db: Connection, record: RunRecord): Promise<RunShelf> {
  const formulas = record.method.stages.flatMap((stage) =>
    stage.kind === "conclude"
      ? []
      : [
          ...stage.inputs.flatMap((i) =>
            (i.is === "given" || i.is === "purity") && i.of !== undefined ? [i.of] : [],
          ),
          ...(stage.result.assigns === undefined ? [] : [stage.result.assigns]),
        ],
  );
  const newer = await newerThanUsed(db, record);
  const shelved = await db
    .select({ a: assignment, number: solution.number, name: solution.name })
    .from(assignment)
    .innerJoin(solution, eq(solution.id, assignment.solutionId))
    .where(eq(assignment.runId, record.id))
    .orderBy(asc(assignment.seq));
  const again = await db
    .select()
    .from(recomputation)
    .where(eq(recomputation.runId, record.id))
    .orderBy(asc(recomputation.id));
  return {
    bottles: await bottlesOf(db, [...new Set(formulas)]),
    shelved: shelved.map(({ a, number, name }) => ({
      stageKey: a.stageKey ?? "",
      solutionId: a.solutionId,
      code: solutionCode(number),
      name,
      value: a.value,
      unit: a.unit,
    })),
    newer: newer.map(({ used, now }) => ({
      code: used.code,
      solutionId: used.solutionId,
      name: used.name,
      unit: used.unit,
      was: used.value,
      now: now.value,
    })),
    recomputations: again.map(({ id, at, person, changes, replaced }) => ({
      id,
      at,
      person,
      changes,
      replaced,
    })),
  };
}
