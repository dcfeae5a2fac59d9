import { methodOf } from "../../core/run";
import { statedOf } from "../../core/inputs";
import type { RunRecord, UsedSolution } from "../../core/run";
import { presentObservation } from "../../core/record";
import type { DatabaseConnection } from "../database/types";
import { assignment, assignmentSource, solution, recomputation } from "../database/schema";
import { desc, eq, asc } from "drizzle-orm";
import type { RunShelf } from "../../protocol/shelf";
import { formulasKnownBy } from "../../protocol/known";
import { bottlesOf } from "./shelf";
import { solutionCode } from "./solution-code";

/** Assignments that hold in a record now, up to a stage and with it; in all of it where none is named. */
export function usedIn(record: RunRecord, upTo?: string): string[] {
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
export async function shelfLineage(db: DatabaseConnection): Promise<Map<string, string[]>> {
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

export interface NewerUse {
  readonly used: UsedSolution;
  readonly now: {
    readonly id: string;
    readonly value: string;
    readonly plusMinus: string;
    readonly shape: string;
  };
}

/** Bottles of a run that have been given another concentration since. */
export async function newerThanUsed(db: DatabaseConnection, record: RunRecord): Promise<NewerUse[]> {
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

/** What the shelf has to do with a run: bottles to take from, what it has put there, and what is newer since. */
export async function shelfOfRun(db: DatabaseConnection, record: RunRecord): Promise<RunShelf> {
  const formulas = methodOf(record)
    .stages.flatMap((stage) => [
      ...stage.inputs.flatMap((i) => statedOf(i)?.shelf?.formula ?? []),
      ...(stage.result.assigns === undefined ? [] : [stage.result.assigns]),
    ])
    .concat(formulasKnownBy(record.method));
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
