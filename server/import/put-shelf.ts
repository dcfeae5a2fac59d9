import { eq, inArray } from "drizzle-orm";
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

async function putAssignment(db: DatabaseConnection, solutionId: string, given: Assignment): Promise<void> {
  const { id, at, person, how, value, plusMinus, shape, unit, stage } = given;
  await db
    .insert(assignment)
    .values({
      ...{ id, solutionId, at: new Date(at), person, how, value, plusMinus, shape, unit },
      stageKey: stage,
    })
    .onConflictDoNothing();
}

/** Puts bottles and their concentrations on the shelf where they are not there. Returns how many bottles were put. */
export async function putShelf(db: DatabaseConnection, { bottles }: ShelfFile): Promise<number> {
  let count = 0;
  for (const bottle of bottles) if (await putBottle(db, bottle)) count++;
  // In the order in which they were given, over all bottles: what stands on another one came later.
  const given = bottles.flatMap(({ id, assignments }) => assignments.map((one) => ({ bottle: id, one })));
  const order = ({ one }: (typeof given)[number]) => `${new Date(one.at).toISOString()} ${one.id}`;
  given.sort((a, b) => (order(a) < order(b) ? -1 : 1));
  for (const { bottle, one } of given) await putAssignment(db, bottle, one);
  return count;
}

/** What concentrations stand on, and which runs found them, once all of these are there. */
export async function linkShelf(db: DatabaseConnection, { bottles }: ShelfFile): Promise<void> {
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
        note: `Known from the record of “${title}” alone`,
        assignments: used.map(({ assignmentId, at, how, value, plusMinus, shape, unit }) => ({
          ...{ id: assignmentId, at, person: "", how, value, plusMinus, shape, unit },
          ...{ run: null, stage: null, sources: [] },
        })),
      },
    ];
  });
  return { format: "steady-bead/shelf", formatVersion: 1, bottles };
}
