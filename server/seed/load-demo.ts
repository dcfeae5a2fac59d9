import { type Result, failure, success } from "../../core/result";
import { run, solution } from "../database/schema";
import type { Database } from "../database/types";
import { seedDemo } from "./demo";

/** Fills a lab in which nothing was ever done with the demo data; refused in any other. */
export async function loadDemo(db: Database, now: Date): Promise<Result<null>> {
  const runs = await db.select({ id: run.id }).from(run).limit(1);
  const bottles = await db.select({ id: solution.id }).from(solution).limit(1);
  if (runs.length + bottles.length > 0)
    return failure("This lab is in use. Demo data can only be loaded into an empty lab");
  await seedDemo(db, now);
  return success(null);
}
