import { desc, eq, inArray } from "drizzle-orm";
import type { LineageGraph } from "../../formats/shelf";
import { assignment, observation, run, stage } from "../database/schema";
import type { Connection } from "../database/types";
import { listShelf } from "./shelf";
import { shelfLineage } from "./shelf-of-run";

/** Runs shown at most: the newest. */
const mostRuns = 24;

/** What stands on what: bottles on bottles by their present concentrations, and the runs that used them. */
export async function lineageGraph(db: Connection, now = new Date()): Promise<LineageGraph> {
  const bottles = await listShelf(db, true, now);
  const standsOn = await shelfLineage(db);
  const uses = await db
    .selectDistinctOn([run.id, assignment.solutionId], {
      runId: run.id,
      title: run.title,
      sample: run.sample,
      startedAt: run.startedAt,
      summary: run.summary,
      solutionId: assignment.solutionId,
    })
    .from(observation)
    .innerJoin(assignment, eq(assignment.id, observation.assignmentId))
    .innerJoin(stage, eq(stage.id, observation.stageId))
    .innerJoin(run, eq(run.id, stage.runId))
    .orderBy(desc(run.id), assignment.solutionId);
  const runIds = [...new Set(uses.map((u) => u.runId))].slice(0, mostRuns);
  const puts =
    runIds.length === 0
      ? []
      : await db
          .select({ runId: assignment.runId, solutionId: assignment.solutionId })
          .from(assignment)
          .where(inArray(assignment.runId, runIds));
  const fixes = new Set(puts.map((p) => p.runId));
  // A run that only fixed a bottle is shown by that bottle.
  const samples = runIds.filter((id) => !fixes.has(id));
  const used = new Set([...standsOn.values()].flat().concat(uses.map((u) => u.solutionId)));
  return {
    bottles: bottles
      .filter((b) => b.state !== "used up" || used.has(b.id))
      .map((bottle) => ({ bottle, standsOn: standsOn.get(bottle.id) ?? [] })),
    runs: samples.map((id) => {
      const mine = uses.filter((u) => u.runId === id);
      const [first] = mine;
      return {
        id,
        title: first?.title ?? "",
        sample: first?.sample ?? "",
        at: first?.startedAt ?? now,
        result: first?.summary.result?.text ?? null,
        standsOn: mine.map((u) => u.solutionId),
      };
    }),
  };
}
