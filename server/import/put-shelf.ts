import { eq, inArray, sql } from "drizzle-orm";
import type { RunRecord } from "../../core/run";
import { type ShelfBottle, type ShelfFile } from "../../formats/archive/schema";
import { recordOfFile } from "../../formats/concluded";
import { nextNumber } from "../commands/shelf";
import { assignment, assignmentSource, run, solution } from "../database/schema";
import type { DatabaseConnection } from "../database/types";

type Assignment = ShelfBottle["assignments"][number];
const date = (at: string | null) => (at === null ? null : new Date(at));

async function putBottle(db: DatabaseConnection, bottle: ShelfBottle): Promise<boolean> {
  const { id, number, madeAt, usedUpAt, making, assignments: _, ...plain } = bottle;
  const [there] = await db.select({ id: solution.id }).from(solution).where(eq(solution.id, id));
  if (there) return false;
  const taken = await db.select({ id: solution.id }).from(solution).where(eq(solution.number, number));
  await db.insert(solution).values({
    ...{ ...plain, id },
    // A number that is on another label here is not given twice.
    number: taken.length > 0 ? nextNumber : number,
    madeAt: new Date(madeAt),
    usedUpAt: date(usedUpAt),
    making: making && recordOfFile(making),
  });
  return true;
}

const rowOf = (solutionId: string, { at, stage, run: _, sources: __, ...given }: Assignment) => ({
  ...{ ...given, solutionId, at: new Date(at), stageKey: stage },
});

/**
 * Adds bottles, with their concentrations, where they are not on the shelf yet; a bottle that is there stays as it is. Returns the bottles that
 * were added.
 */
export async function putShelf(db: DatabaseConnection, { bottles }: ShelfFile): Promise<ShelfBottle[]> {
  const added: ShelfBottle[] = [];
  for (const bottle of bottles) if (await putBottle(db, bottle)) added.push(bottle);
  // In the order in which they were given, over all bottles: a source comes before what rests on it.
  const rows = added
    .flatMap(({ id, assignments }) => assignments.map((given) => rowOf(id, given)))
    .sort((a, b) => a.at.getTime() - b.at.getTime() || (a.id < b.id ? -1 : 1));
  for (const row of rows) await db.insert(assignment).values(row).onConflictDoNothing();
  return added;
}

/**
 * Adds the concentrations that a run took from bottles, where they are missing. A bottle that was here keeps the concentration that it has: one
 * from a file goes behind all others, and never becomes the current one.
 */
export async function putUsed(db: DatabaseConnection, { bottles }: ShelfFile): Promise<void> {
  for (const { id: solutionId, assignments } of bottles)
    for (const given of assignments) {
      const { id, at, person, how, value, plusMinus, shape, unit, stageKey } = rowOf(solutionId, given);
      await db.execute(sql`
        insert into assignment (id, seq, solution_id, at, person, how, value, plus_minus, shape, unit, stage_key)
        overriding system value
        select ${id}, coalesce((select min(seq) from assignment where solution_id = ${solutionId}), 1) - 1, ${solutionId},
          ${at.toISOString()}::timestamptz, ${person}, ${how}, ${value}::numeric, ${plusMinus}::numeric, ${shape}, ${unit}, ${stageKey}
        on conflict (id) do nothing`);
    }
}

/** Links the concentrations of bottles that were added to the runs that found them, and to what they rest on. */
export async function linkShelf(db: DatabaseConnection, bottles: readonly ShelfBottle[]): Promise<void> {
  for (const { id, run: runId, sources } of bottles.flatMap((bottle) => bottle.assignments)) {
    if (runId !== null) {
      const [found] = await db.select({ id: run.id }).from(run).where(eq(run.id, runId));
      if (found) await db.update(assignment).set({ runId }).where(eq(assignment.id, id));
    }
    if (sources.length === 0) continue;
    const there = await db
      .select({ id: assignment.id })
      .from(assignment)
      .where(inArray(assignment.id, [...sources]));
    if (there.length > 0)
      await db
        .insert(assignmentSource)
        .values(there.map((source) => ({ assignmentId: id, sourceId: source.id })))
        .onConflictDoNothing();
  }
}

/** The bottles that a run took something from, as its record knows them: less than the shelf of its lab knows. */
export function shelfOfRecord({ solutions = [], title }: RunRecord): ShelfFile {
  const ids = [...new Set(solutions.map(({ solutionId }) => solutionId))];
  const bottles = ids.flatMap((id): ShelfBottle[] => {
    const used = solutions.filter(({ solutionId }) => solutionId === id);
    const [first] = used;
    if (!first) return [];
    const solid = first.unit === "%";
    return [
      {
        ...{ id, formula: first.formula, name: first.name, madeAt: first.at, madeBy: "" },
        number: Math.max(1, Number(/\d+$/.exec(first.code)?.[0] ?? 1)),
        form: solid ? "solid" : "solution",
        ...{ amountMade: null, amountLeft: null, amountUnit: solid ? "g" : "mL" },
        ...{ restandardizeBy: null, usedUpAt: null, hazards: "", making: null },
        note: `Imported with the run “${title}”`,
        assignments: used.map(({ assignmentId, at, how, value, plusMinus, shape, unit }) => ({
          ...{ id: assignmentId, at, person: "", how, value, plusMinus, shape, unit },
          ...{ run: null, stage: null, sources: [] },
        })),
      },
    ];
  });
  return { format: "steady-bead/shelf", formatVersion: 1, bottles };
}
