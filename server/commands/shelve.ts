import "~/core/stages/engines";
import type { RunRecord } from "../../core/run";
import { evaluateRun } from "../../core/evaluate";
import { resultQuantity, type ComputedEvaluation } from "../../core/stages";
import { clockSeen } from "./lab";
import { keptDecimals, assign, nextNumber, rememberBottle } from "./shelf";
import { inUnit, standardUncertainty, unitOf } from "../../core/quantity";
import { type ChangeProblem, malformed, refused } from "../../core/change";
import type { Asked } from "./asked";
import type { RunRequest } from "../../protocol/requests";
import { isDay } from "../../core/timing";
import { usedIn, shelfLineage, type NewerUse, newerThanUsed } from "../queries/shelf-of-run";
import { newId } from "../journal/under-way";
import { solution, assignment, recomputation } from "../database/schema";
import { solutionById } from "../queries/shelf";
import { eq, desc, and, isNotNull } from "drizzle-orm";
import type { DatabaseConnection } from "../database/types";
import { ancestorsOf } from "../../core/prepare";
import type { ResultChange } from "../../protocol/shelf";
import { msg, type Phrase, inEnglish } from "~/core/text";

/** What a stage found that goes on a shelf. */
function found(record: RunRecord, stageKey: string) {
  const stage = evaluateRun(record).stages.find((s) => s.key === stageKey);
  if (!stage) return null;
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
  db: DatabaseConnection,
  record: RunRecord,
  request: Extract<RunRequest, { intent: "shelve" }>,
  { person, now, from }: Asked,
): Promise<ChangeProblem | null> {
  const there = found(record, request.stageKey);
  if (!there) return malformed(msg`This stage yields nothing for the shelf`).problem;
  if (!there.stage.done)
    return refused(msg`The set is not closed yet: its result does not go on the shelf`).problem;
  if (request.restandardizeBy !== "" && !isDay(request.restandardizeBy))
    return refused(msg`There is no such day`).problem;
  const sources = usedIn(record, request.stageKey);
  let solutionId = request.solutionId;
  if (solutionId === null) {
    if (request.name.trim() === "") return refused(msg`Give the new bottle a name`).problem;
    solutionId = newId(now);
    await db.insert(solution).values({
      id: solutionId,
      number: nextNumber,
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
    if (!bottle) return refused(msg`This bottle is no longer on the shelf: look again`).problem;
    if (bottle.formula !== there.formula)
      return refused(msg`${bottle.name} is not what this stage standardizes`).problem;
    const circle = await circleOf(db, record, solutionId, sources);
    if (circle) return refused(circle).problem;
    const [last] = await db
      .select()
      .from(assignment)
      .where(eq(assignment.solutionId, solutionId))
      .orderBy(desc(assignment.seq))
      .limit(1);
    if (last?.runId === record.id && last.stageKey === request.stageKey && last.value === there.value)
      return refused(msg`${bottle.code} has this concentration already`).problem;
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
    from,
  );
  return null;
}

/** A bottle whose concentration would stand on itself, by way of a standard that it fixed before: said in words, or null. */
async function circleOf(
  db: DatabaseConnection,
  record: RunRecord,
  solutionId: string,
  sources: readonly string[],
): Promise<Phrase | null> {
  const used = (record.solutions ?? []).filter((s) => sources.includes(s.assignmentId));
  const lineage = await shelfLineage(db);
  const through = used.find(
    (s) => s.solutionId === solutionId || ancestorsOf(s.solutionId, lineage).has(solutionId),
  );
  return through
    ? msg`It would depend on itself: ${through.code}, ${through.name}, was standardized with this very bottle. Standardize it against something else`
    : null;
}

/** Bottles that this run has fixed before get what it finds now, when it is finished again with another value. */
export async function renewShelved(db: DatabaseConnection, record: RunRecord, asked: Asked): Promise<void> {
  const earlier = await db
    .selectDistinctOn([assignment.solutionId, assignment.stageKey])
    .from(assignment)
    .where(and(eq(assignment.runId, record.id), isNotNull(assignment.stageKey)))
    .orderBy(assignment.solutionId, assignment.stageKey, desc(assignment.seq));
  for (const { solutionId, stageKey, value } of earlier) {
    const there = stageKey === null ? null : found(record, stageKey);
    if (!there || stageKey === null || !there.stage.done || there.value === value) continue;
    const request = { intent: "shelve", stageKey, solutionId, name: "", restandardizeBy: "" } as const;
    await shelve(db, record, request, asked);
  }
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

const resultsIn = (record: RunRecord): Map<string, { stage: string; name: Phrase; text: Phrase }> =>
  new Map(
    evaluateRun(record).stages.flatMap((stage) =>
      shownResults(stage).map((r) => [`${stage.key} ${inEnglish(r.name)}`, r] as const),
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
export async function recompute(
  db: DatabaseConnection,
  record: RunRecord,
  { person, now }: Asked,
): Promise<ChangeProblem | null> {
  if (record.status === "open")
    return refused(msg`This run is open: take the newer concentration in its stage`).problem;
  const newer = await newerThanUsed(db, record);
  if (newer.length === 0) return refused(msg`None of its bottles has a newer concentration`).problem;
  const before = resultsIn(record);
  const after = resultsIn(withNewest(record, newer));
  const changes: ResultChange[] = [...before].flatMap(([key, { stage, name, text }]) => {
    const again = after.get(key)?.text ?? msg`no result`;
    return inEnglish(again) === inEnglish(text) ? [] : [{ stage, name, before: text, after: again }];
  });
  await clockSeen(db, now);
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
  return null;
}
