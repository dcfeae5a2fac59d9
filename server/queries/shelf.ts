import { solutionCode } from "./solution-code";
import { solution, assignment, run } from "../database/schema";
import type { SolutionState, AssignmentView, SolutionView } from "../../protocol/shelf";
import type { DatabaseConnection } from "../database/types";
import { eq, desc, inArray, isNull, asc, and, lte } from "drizzle-orm";
import type { RunRecord } from "../../core/run";

export type SolutionRow = typeof solution.$inferSelect;

function stateOf({ usedUpAt, restandardizeBy }: SolutionRow, now: Date): SolutionState {
  if (usedUpAt) return "used up";
  return restandardizeBy !== null && restandardizeBy < now.toISOString().slice(0, 10)
    ? "past its date"
    : "in use";
}

const assignmentColumns = {
  id: assignment.id,
  solutionId: assignment.solutionId,
  at: assignment.at,
  person: assignment.person,
  how: assignment.how,
  value: assignment.value,
  plusMinus: assignment.plusMinus,
  shape: assignment.shape,
  unit: assignment.unit,
  runId: assignment.runId,
  runTitle: run.title,
  stageKey: assignment.stageKey,
};

/** Newest first. */
export const assignmentsOf = (db: DatabaseConnection, solutionId: string): Promise<AssignmentView[]> =>
  db
    .select(assignmentColumns)
    .from(assignment)
    .leftJoin(run, eq(run.id, assignment.runId))
    .where(eq(assignment.solutionId, solutionId))
    .orderBy(desc(assignment.seq));

function viewOf(row: SolutionRow, current: AssignmentView | null, now: Date): SolutionView {
  const { id, form, formula, name, madeAt, madeBy, amountMade, amountLeft, amountUnit } = row;
  const { restandardizeBy, hazards, note, revision } = row;
  return {
    ...{ id, form, formula, name, madeAt, madeBy, amountMade, amountLeft, amountUnit },
    ...{ restandardizeBy, hazards, note, revision },
    code: solutionCode(row.number),
    state: stateOf(row, now),
    current,
  };
}

async function withCurrent(
  db: DatabaseConnection,
  rows: readonly SolutionRow[],
  now: Date,
): Promise<SolutionView[]> {
  if (rows.length === 0) return [];
  const newest = await db
    .selectDistinctOn([assignment.solutionId], assignmentColumns)
    .from(assignment)
    .leftJoin(run, eq(run.id, assignment.runId))
    .where(
      inArray(
        assignment.solutionId,
        rows.map((r) => r.id),
      ),
    )
    .orderBy(assignment.solutionId, desc(assignment.seq));
  const of = new Map(newest.map((a) => [a.solutionId, a]));
  return rows.map((row) => viewOf(row, of.get(row.id) ?? null, now));
}

/** All bottles, by name; those that are used up only where they are asked for. */
export async function listShelf(
  db: DatabaseConnection,
  usedUp = false,
  now = new Date(),
): Promise<SolutionView[]> {
  const rows = await db
    .select()
    .from(solution)
    .where(usedUp ? undefined : isNull(solution.usedUpAt))
    .orderBy(asc(solution.name), asc(solution.number));
  return withCurrent(db, rows, now);
}

/** Bottles in use whose day to be standardized again has passed or comes within two days, the most overdue first. */
export async function dueBottles(
  db: DatabaseConnection,
  now = new Date(),
  limit = 8,
): Promise<SolutionView[]> {
  const soon = new Date(now.getTime() + 2 * 24 * 3_600_000).toISOString().slice(0, 10);
  const rows = await db
    .select()
    .from(solution)
    .where(and(isNull(solution.usedUpAt), lte(solution.restandardizeBy, soon)))
    .orderBy(asc(solution.restandardizeBy))
    .limit(limit);
  return withCurrent(db, rows, now);
}

/** Bottles of these substances that are not used up, the newest first. */
export async function bottlesOf(
  db: DatabaseConnection,
  formulas: readonly string[],
  now = new Date(),
): Promise<SolutionView[]> {
  if (formulas.length === 0) return [];
  const rows = await db
    .select()
    .from(solution)
    .where(and(inArray(solution.formula, [...formulas]), isNull(solution.usedUpAt)))
    .orderBy(desc(solution.number));
  return withCurrent(db, rows, now);
}

export interface SolutionDetail {
  readonly solution: SolutionView;
  readonly assignments: readonly AssignmentView[];
  readonly making: RunRecord | null;
}

export async function solutionById(
  db: DatabaseConnection,
  id: string,
  now = new Date(),
): Promise<SolutionDetail | null> {
  const [row] = await db.select().from(solution).where(eq(solution.id, id));
  if (!row) return null;
  const assignments = await assignmentsOf(db, id);
  return { solution: viewOf(row, assignments[0] ?? null, now), assignments, making: row.making };
}
