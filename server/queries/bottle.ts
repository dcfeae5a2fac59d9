import { eq } from "drizzle-orm";
import type { TakenBottle } from "../../core/change";
import { assignment, solution } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { solutionCode } from "./solution-code";

/** A bottle as a run takes it, by a concentration that it was given; null where it is gone. */
export async function bottleTaken(db: DatabaseConnection, assignmentId: string): Promise<TakenBottle | null> {
  const [found] = await db
    .select({ a: assignment, s: solution })
    .from(assignment)
    .innerJoin(solution, eq(solution.id, assignment.solutionId))
    .where(eq(assignment.id, assignmentId));
  if (!found) return null;
  const { a, s } = found;
  const { how, value, plusMinus, shape, unit } = a;
  return {
    usedUp: s.usedUpAt !== null,
    used: {
      ...{ assignmentId: a.id, solutionId: s.id, code: solutionCode(s.number), name: s.name },
      ...{ formula: s.formula, how, value, plusMinus, shape, unit, at: a.at.toISOString() },
    },
  };
}
