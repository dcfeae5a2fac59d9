import { createHash } from "node:crypto";
import canonicalize from "canonicalize";
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { isShipped } from "../../catalog/methods";
import type { Method } from "../../core/method";
import type { StageRecord } from "../../core/record";
import { Bug } from "../../core/result";
import type { RunRecord } from "../../core/run";
import type { ListedRun } from "../../core/evaluate";
import { insertMany } from "../database/insert-many";
import { type UnderRuns, withoutLookups } from "../database/references";
import {
  houseRules,
  method,
  observation,
  run,
  runResult,
  stage,
  timer,
  trace,
  trial,
} from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { searchText } from "../commands/search-text";
import { rowsOfStages } from "../commands/store-run";
import { listed } from "../commands/summary";
import { newId } from "../journal/under-way";
import { readRuns } from "../queries/stored-run";
import { isSameRun, sharedText } from "./import-status";

const comparable = (value: unknown): string => canonicalize(value) ?? "";

/** Methods of runs that are imported together, as the library has them. */
export type KnownMethods = Map<Method, Method>;

/**
 * Adds a method to the library under its own id and version, or under another id where another method has these. Returns the method as it is in
 * the library, and whether it is new there.
 */
export async function putMethod(
  db: DatabaseConnection,
  given: Method,
): Promise<{ readonly method: Method; readonly added: boolean }> {
  const stored = async (data: Method) => {
    const [row] = await db
      .select({ data: method.data })
      .from(method)
      .where(and(eq(method.id, data.id), eq(method.version, data.version)));
    return row?.data ?? null;
  };
  const there = await stored(given);
  if (there && comparable(there) === comparable(given)) return { method: there, added: false };
  // What the library ships is what its id and version say; a version that it does not know is somebody else's.
  const isOwn = !there && !isShipped(given.id);
  const digest = createHash("sha256").update(comparable(given)).digest("hex").slice(0, 8);
  const kept: Method = isOwn ? given : { ...given, id: `${given.id.slice(0, 70)}-${digest}` };
  const before = await stored(kept);
  if (before) return { method: before, added: false };
  const { id, version, title } = kept;
  await db.insert(method).values({ id, version, title, data: kept });
  return { method: kept, added: true };
}

/** House rules of the lab that say the same, by what they say; runs that follow them name them. */
async function rulesHere(db: DatabaseConnection): Promise<ReadonlyMap<string, string>> {
  const rows = await db
    .select({ id: houseRules.id, data: houseRules.data })
    .from(houseRules)
    .where(isNull(houseRules.runId))
    .orderBy(houseRules.seq);
  return new Map(rows.map(({ id, data }) => [sharedText(data), id]));
}

/** A run from a file as it will stand in the lab: with the library's method, and a stage for each that its method has. */
function asWritten(given: RunRecord, method: Method): RunRecord {
  const stageOf = new Map(given.stages.map((one) => [one.key, one]));
  const stages = method.stages.map(
    ({ key }): StageRecord => stageOf.get(key) ?? { id: newId(), key, observations: [], trials: [] },
  );
  return { ...given, method, stages };
}

function runRow(
  record: RunRecord,
  houseRulesId: string,
  lists: ReturnType<typeof listed>["lists"],
  now: Date,
) {
  const { id, title, sample, bench, status, series, choices, countersigned, method: by } = record;
  return {
    ...{ id, title, sample, bench, status, houseRulesId, search: searchText({ title, sample, bench }) },
    ...{ methodId: by.id, methodVersion: by.version, revision: 1, series, choices, countersigned },
    startedAt: new Date(record.startedAt),
    finishedAt: record.finishedAt === null ? null : new Date(record.finishedAt),
    updatedAt: now,
    ...lists,
  };
}

export interface PutSetting {
  readonly methods?: KnownMethods;
  /** What lists show of runs that were evaluated already, by their ids. */
  readonly listed?: ReadonlyMap<string, ListedRun> | undefined;
  /**
   * Shapes of runs that were read back already: of each other one is. Enough for runs that this program made itself, since runs of one shape
   * go through the same statements. Null where each run is read back.
   */
  readonly shapes?: Set<string> | null;
}

/**
 * Writes runs that come from a file, with their own ids and times; their methods, their house rules, and what lists show of them. The bottles
 * that they name are there. Throws where what is written is not what was given. Returns how much stands under the runs: see `mustStandUnderRuns`.
 */
export async function putRuns(
  db: DatabaseConnection,
  given: readonly RunRecord[],
  now: Date,
  { methods = new Map(), listed: known, shapes = null }: PutSetting = {},
): Promise<UnderRuns> {
  const records: RunRecord[] = [];
  for (const one of given) {
    const kept = methods.get(one.method) ?? (await putMethod(db, one.method)).method;
    methods.set(one.method, kept);
    records.push(asWritten(one, kept));
  }
  const here = await rulesHere(db);
  // Rules that the lab does not have are made for their run.
  const own: (typeof houseRules.$inferInsert)[] = [];
  const views = records.map((record) => ({ record, ...listed(record, known?.get(record.id)) }));
  const runs = views.map(({ record, lists }) => {
    const data = record.houseRules;
    let houseRulesId = here.get(sharedText(data));
    if (houseRulesId === undefined) own.push({ id: (houseRulesId = newId(now)), createdAt: now, data });
    return runRow(record, houseRulesId, lists, now);
  });
  await insertMany(db, houseRules, own);
  await insertMany(db, run, runs);
  // Rules made for a run name it, and it names them.
  const made = own.map(({ id }) => id);
  if (made.length > 0)
    await db
      .update(houseRules)
      .set({ runId: sql`(select ${run.id} from ${run} where ${run.houseRulesId} = ${houseRules.id})` })
      .where(inArray(houseRules.id, made));
  const stages = records.flatMap(({ id: runId, stages: own }) =>
    own.map(({ id, key, choices }, position) => ({ id, runId, key, position, choices })),
  );
  const rows = rowsOfStages(records.flatMap((record) => record.stages));
  const results = views.flatMap((view) => view.results);
  await withoutLookups(db, async () => {
    await insertMany(db, stage, stages);
    await insertMany(db, trial, rows.trials);
    await insertMany(db, observation, rows.readings);
    await insertMany(db, runResult, results);
  });
  await insertMany(db, trace, rows.traces);
  await insertMany(db, timer, rows.timers);
  await mustStandAsGiven(db, shapes === null ? records : newShapes(records, shapes));
  return {
    stages: stages.length,
    trials: rows.trials.length,
    readings: rows.readings.length,
    results: results.length,
  };
}

/** What a value is made of, whatever it says. */
function shapeOf(value: unknown): string {
  if (Array.isArray(value)) return `[${[...new Set(value.map(shapeOf))].sort().join()}]`;
  if (value === null || typeof value !== "object") return value === null ? "null" : typeof value;
  const parts = Object.entries(value).map(([key, part]) => `${key}:${shapeOf(part)}`);
  return `{${parts.sort().join()}}`;
}

/** Runs of which each stands for all that are made of the same parts, and that are not among these shapes, to which they are added. */
function newShapes(records: readonly RunRecord[], shapes: Set<string>): readonly RunRecord[] {
  return records.filter((one) => {
    const shape = shapeOf({ ...one, method: null, houseRules: null });
    return !shapes.has(shape) && shapes.add(shape);
  });
}

/** Reads runs back that were just written, and throws where one is not what it should be. */
async function mustStandAsGiven(db: DatabaseConnection, records: readonly RunRecord[]): Promise<void> {
  const written = new Map(
    (
      await readRuns(
        db,
        records.map(({ id }) => id),
      )
    ).map(({ record }) => [record.id, record]),
  );
  for (const record of records) {
    const there = written.get(record.id);
    if (!there || !isSameRun(there, record))
      throw new Bug(`The run “${record.title}” is not in the database as it stands in its file`);
  }
}
