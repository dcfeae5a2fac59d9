import type { DatabaseConnection } from "../database/types";
import type { LineageGraph, Related } from "../../protocol/shelf";
import { listShelf } from "./shelf";
import { shelfLineage } from "./shelf-of-run";
import { run, assignment, observation, stage } from "../database/schema";
import { eq, desc, inArray } from "drizzle-orm";
import { methodOf } from "../../core/run";
import { methodVersion } from "./methods";
import { concentrationText } from "../../protocol/concentration";
import { ancestorsOf, dependentsOf } from "../../core/prepare";

/** Runs shown at most: the newest. */
const mostRuns = 24;

/** What stands on what: bottles on bottles by their present concentrations, and the runs that used them. */
export async function lineageGraph(db: DatabaseConnection, now = new Date()): Promise<LineageGraph> {
  const bottles = await listShelf(db, true, now);
  const standsOn = await shelfLineage(db);
  const uses = await db
    .selectDistinctOn([run.id, assignment.solutionId], {
      runId: run.id,
      title: run.title,
      sample: run.sample,
      startedAt: run.startedAt,
      summary: run.summary,
      methodId: run.methodId,
      methodVersion: run.methodVersion,
      choices: run.choices,
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
          .select({
            runId: assignment.runId,
            stageKey: assignment.stageKey,
            solutionId: assignment.solutionId,
          })
          .from(assignment)
          .where(inArray(assignment.runId, runIds));
  // A run whose last word is a bottle's concentration is shown by that bottle.
  const samples: string[] = [];
  for (const id of runIds) {
    const about = uses.find((u) => u.runId === id);
    const method = about && (await methodVersion(db, about.methodId, about.methodVersion));
    const last = method && methodOf({ method, choices: about.choices ?? [] }).stages.at(-1)?.key;
    if (!puts.some((p) => p.runId === id && p.stageKey === last)) samples.push(id);
  }
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
        // What it has put on the shelf on its way stands between its standards and its sample.
        standsOn: puts.some((p) => p.runId === id)
          ? puts.flatMap((p) => (p.runId === id ? [p.solutionId] : []))
          : mine.map((u) => u.solutionId),
      };
    }),
  };
}

/** What a bottle stands on and what depends on it, however far, as its page lists them. */
export async function relativesOf(
  db: DatabaseConnection,
  solutionId: string,
): Promise<{ standsOn: readonly Related[]; carries: readonly Related[] }> {
  const { bottles, runs } = await lineageGraph(db);
  const standsOn = new Map([
    ...bottles.map((b) => [b.bottle.id, b.standsOn] as const),
    ...runs.map((r) => [r.id, r.standsOn] as const),
  ]);
  const all: Related[] = [
    ...bottles.map(({ bottle: { id, code, name, current } }) => ({
      id,
      to: `/shelf/${id}`,
      title: `${code} ${name}`,
      fact: current ? concentrationText(current) : "",
    })),
    ...runs.map(({ id, title, result }) => ({
      id,
      to: `/runs/${id}`,
      title,
      fact: result ?? "no result yet",
    })),
  ];
  const listed = (ids: ReadonlySet<string>) => all.filter(({ id }) => ids.has(id));
  return {
    standsOn: listed(ancestorsOf(solutionId, standsOn)),
    carries: listed(dependentsOf(solutionId, standsOn)),
  };
}
