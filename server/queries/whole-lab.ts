import { setImmediate as letOthersRun } from "node:timers/promises";
import { asc, desc } from "drizzle-orm";
import { isShipped } from "../../catalog/methods";
import type { Method } from "../../core/method";
import type { ShelfFile } from "../../formats/archive/schema";
import { type ArchiveParts } from "../../formats/archive/write";
import { fileOfRecord, type RunFile } from "../../formats/concluded";
import { labTrailCsv } from "../../formats/lab-trail-file";
import { fileWithResults } from "../../formats/results/stated";
import { resultsCsv } from "../../formats/results/table";
import { assignment, assignmentSource, method, run, solution } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { currentHouseRules } from "./house-rules";
import { labTrail } from "./lab-trail";
import { loadRunRecord } from "./stored-run";

const iso = (at: Date | null) => at?.toISOString() ?? null;

/** The shelf as a file holds it. */
export async function wholeShelf(db: DatabaseConnection): Promise<ShelfFile> {
  const bottles = await db.select().from(solution).orderBy(asc(solution.number));
  const given = await db.select().from(assignment).orderBy(asc(assignment.seq));
  const sources = await db.select().from(assignmentSource);
  return {
    format: "steady-bead/shelf",
    formatVersion: 1,
    bottles: bottles.map(({ revision: _, madeAt, usedUpAt, making, ...plain }) => ({
      ...plain,
      ...{ madeAt: madeAt.toISOString(), usedUpAt: iso(usedUpAt) },
      making: making && fileOfRecord(making),
      assignments: given
        .filter(({ solutionId }) => solutionId === plain.id)
        .map(({ seq: __, solutionId: ___, at, runId, stageKey, ...kept }) => ({
          ...kept,
          ...{ at: at.toISOString(), run: runId, stage: stageKey },
          sources: sources.flatMap(({ assignmentId, sourceId }) =>
            assignmentId === kept.id ? [sourceId] : [],
          ),
        })),
    })),
  };
}

/** The methods of the lab's own, all versions. */
async function ownMethods(db: DatabaseConnection): Promise<Method[]> {
  const rows = await db
    .select({ data: method.data })
    .from(method)
    .orderBy(asc(method.id), asc(method.version));
  return rows.map(({ data }) => data).filter(({ id }) => !isShipped(id));
}

/** More lines than a lab writes in years. */
const mostLines = 1_000_000;

/** All that an archive of the lab holds; of its runs only those that are named, where some are. */
export async function partsOfLab(
  db: DatabaseConnection,
  sign: (file: RunFile) => RunFile,
  runIds?: readonly string[],
): Promise<ArchiveParts> {
  const rows = await db.select({ id: run.id }).from(run).orderBy(desc(run.startedAt), asc(run.id));
  const wanted = runIds ? rows.filter(({ id }) => runIds.includes(id)) : rows;
  const runs: RunFile[] = [];
  for (const { id } of wanted) {
    const record = await loadRunRecord(db, id);
    // Other requests are answered between two runs.
    await letOthersRun();
    if (record) runs.push(sign(fileWithResults(record)));
  }
  const lines = await labTrail(db, { words: [], about: null, before: null, limit: mostLines });
  return {
    runs,
    methods: await ownMethods(db),
    houseRules: (await currentHouseRules(db)).data,
    shelf: await wholeShelf(db),
    results: resultsCsv(runs),
    trail: labTrailCsv(lines),
  };
}
