import { createHash } from "node:crypto";
import canonicalize from "canonicalize";
import { and, eq } from "drizzle-orm";
import { isShipped } from "../../catalog/methods";
import type { Method } from "../../core/method";
import { Bug } from "../../core/result";
import type { RunRecord } from "../../core/run";
import { houseRules, method, run, stage } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { searchText } from "../commands/search-text";
import { storeDifference } from "../commands/store-run";
import { writeRun } from "../commands/summary";
import { newId } from "../journal/under-way";
import { loadRunRecord } from "../queries/stored-run";
import { isSameRun } from "./import-status";

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

/**
 * Writes a run that comes from a file, with its own ids and times; its method, its house rules, and what lists show of it. The bottles that
 * it names are there. Throws where what is written is not what was given.
 */
export async function putRun(
  db: DatabaseConnection,
  given: RunRecord,
  now: Date,
  methods: KnownMethods = new Map(),
): Promise<void> {
  const kept = methods.get(given.method) ?? (await putMethod(db, given.method)).method;
  methods.set(given.method, kept);
  const record: RunRecord = { ...given, method: kept };
  const { id, title, sample, bench, status, series, choices, countersigned } = record;
  const houseRulesId = newId(now);
  // Rules made for this run name it, and it names them.
  await db.insert(houseRules).values({ id: houseRulesId, createdAt: now, data: record.houseRules });
  await db.insert(run).values({
    ...{ id, title, sample, bench, status, houseRulesId, search: searchText({ title, sample, bench }) },
    ...{ methodId: kept.id, methodVersion: kept.version },
    startedAt: new Date(record.startedAt),
    finishedAt: record.finishedAt === null ? null : new Date(record.finishedAt),
    updatedAt: now,
    ...(series ? { series } : {}),
    ...(choices ? { choices } : {}),
    ...(countersigned ? { countersigned } : {}),
    summary: { chain: [], next: "", state: "", result: null },
  });
  await db.update(houseRules).set({ runId: id }).where(eq(houseRules.id, houseRulesId));
  const order = kept.stages.map(
    ({ key }) => record.stages.find((s) => s.key === key) ?? { id: newId(), key },
  );
  await db
    .insert(stage)
    .values(order.map(({ id: stageId, key }, position) => ({ id: stageId, runId: id, key, position })));
  const empty = await loadRunRecord(db, id);
  if (!empty) throw new Bug("The run was not written");
  await writeRun(db, record, await storeDifference(db, empty, record, now), now);
  const written = await loadRunRecord(db, id);
  if (!written || !isSameRun(written, completed(record, order)))
    throw new Bug(`The run “${title}” is not in the database as it stands in its file`);
}

/** A record with an empty stage for each of its method that it says nothing of. */
function completed(
  record: RunRecord,
  order: readonly { readonly id: string; readonly key: string }[],
): RunRecord {
  return {
    ...record,
    stages: order.map(
      ({ id, key }) => record.stages.find((s) => s.key === key) ?? { id, key, observations: [], trials: [] },
    ),
  };
}
