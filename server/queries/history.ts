import { and, asc, count, desc, eq, gte, inArray, like, lt, lte, ne, sql, type SQL } from "drizzle-orm";
import type {
  HistoryQuery,
  HistoryResult,
  HistoryRow,
  HistorySort,
  ResultChoice,
  TimedResult,
} from "../../protocol/history";
import { method, run, runResult } from "../database/schema";
import type { DatabaseConnection } from "../database/types";

const escaped = (word: string) => `%${word.toLowerCase().replace(/[\\%_]/g, (c) => `\\${c}`)}%`;

const wordsOf = (text: string) => text.slice(0, 200).trim().split(/\s+/).filter(Boolean);

/** The version of the method that a run follows. */
const ofRun = and(eq(method.id, run.methodId), eq(method.version, run.methodVersion));

/** The result that is shown of a run: the one that is asked for, else its main one. */
const resultOf = ({ result }: HistoryQuery) =>
  and(
    eq(runResult.runId, run.id),
    ...(result
      ? [eq(runResult.name, result.name), eq(runResult.unit, result.unit)]
      : [eq(runResult.main, true)]),
    // A run may have a result of one name in two stages: the last of them.
    sql`${runResult.position} = (select max(other.position) from run_result other where other.run_id = ${run.id} and other.name = ${runResult.name} and other.unit = ${runResult.unit} and (${result !== null} or other.main))`,
  );

/** Runs that took something from a bottle, or gave it a concentration. */
const withBottle = (number: number): SQL => sql`(
  exists (select 1 from observation o join assignment a on a.id = o.assignment_id join solution b on b.id = a.solution_id
    join stage s on s.id = o.stage_id where s.run_id = ${run.id} and b.number = ${number})
  or exists (select 1 from assignment a join solution b on b.id = a.solution_id where a.run_id = ${run.id} and b.number = ${number}))`;

const stateIs: Readonly<Record<NonNullable<HistoryQuery["state"]>, SQL>> = {
  open: eq(run.status, "open"),
  finished: eq(run.status, "finished"),
  archived: eq(run.status, "archived"),
  countersigned: sql`${run.countersigned} is not null`,
};

const nextDay = (day: string) => new Date(Date.parse(`${day}T00:00:00Z`) + 86_400_000);

/** What a run must be like to be listed. */
function wanted(query: HistoryQuery): SQL | undefined {
  const { text, sample, person, methodId, solution, from, to, state, result, least, most } = query;
  return and(
    ...wordsOf(text).map((word) => like(run.search, escaped(word))),
    ...wordsOf(sample).map((word) => sql`lower(${run.sample}) like ${escaped(word)}`),
    ...wordsOf(person).map(
      (word) =>
        sql`(lower(coalesce(${run.people}, '')) like ${escaped(word)} or lower(${run.bench}) like ${escaped(word)})`,
    ),
    ...(methodId === null ? [] : [eq(run.methodId, methodId)]),
    ...(solution === null ? [] : [withBottle(solution)]),
    ...(from === null ? [] : [gte(run.startedAt, new Date(`${from}T00:00:00Z`))]),
    ...(to === null ? [] : [lt(run.startedAt, nextDay(to))]),
    // Archived runs are out of the way until they are asked for.
    state === null ? ne(run.status, "archived") : stateIs[state],
    ...(result && least !== null ? [gte(runResult.value, least)] : []),
    ...(result && most !== null ? [lte(runResult.value, most)] : []),
    ...(result ? [sql`${runResult.runId} is not null`] : []),
  );
}

const columns = {
  started: run.startedAt,
  finished: run.finishedAt,
  title: sql`lower(${run.title})`,
  sample: sql`lower(${run.sample})`,
  method: sql`lower(${method.title})`,
  people: sql`lower(coalesce(${run.people}, ''))`,
  state: run.status,
  result: runResult.value,
} satisfies Record<HistorySort["by"], unknown>;

/** Empty cells come last whichever way it is sorted, and equal ones in the order in which the runs were begun. */
const order = ({ by, down }: HistorySort) => [
  sql`${columns[by]} is null`,
  down ? desc(columns[by]) : asc(columns[by]),
  desc(run.startedAt),
  asc(run.id),
];

const listed = {
  id: run.id,
  title: run.title,
  sample: run.sample,
  bench: run.bench,
  status: run.status,
  countersigned: run.countersigned,
  methodTitle: method.title,
  startedAt: run.startedAt,
  finishedAt: run.finishedAt,
  people: run.people,
  summary: run.summary,
  result: {
    name: runResult.name,
    unit: runResult.unit,
    value: runResult.value,
    u: runResult.u,
    shown: runResult.shown,
  },
};

/** One page of the runs that are asked for, and how many there are in all. */
export async function historyOf(db: DatabaseConnection, query: HistoryQuery): Promise<HistoryResult> {
  const where = wanted(query);
  const rows = await db
    .select(listed)
    .from(run)
    .innerJoin(method, ofRun)
    .leftJoin(runResult, resultOf(query))
    .where(where)
    .orderBy(...order(query.sort))
    .limit(query.size)
    .offset(query.page * query.size);
  const [total] = await db
    .select({ n: count() })
    .from(run)
    // Results are looked at only where they decide.
    .leftJoin(runResult, query.result ? resultOf(query) : sql`false`)
    .where(where);
  return {
    total: total?.n ?? 0,
    rows: rows.map(({ summary, people, countersigned, result, ...row }): HistoryRow => ({
      ...row,
      people: people ?? "",
      countersigned: countersigned?.person ?? null,
      state: summary.state,
      result: result?.shown == null ? null : { ...result, shown: result.shown },
    })),
  };
}

/** More points than one chart shows. */
const mostPoints = 2000;

/** One result of all runs that are asked for, in the order in which they ended; of those that are named, where some are. */
export async function resultsInTime(
  db: DatabaseConnection,
  query: HistoryQuery,
  runIds: readonly string[] = [],
): Promise<TimedResult[]> {
  if (!query.result) return [];
  const rows = await db
    .select({
      id: run.id,
      title: run.title,
      sample: run.sample,
      at: run.finishedAt,
      value: runResult.value,
      u: runResult.u,
    })
    .from(run)
    .innerJoin(runResult, resultOf(query))
    .where(and(wanted(query), runIds.length > 0 ? inArray(run.id, [...runIds]) : undefined))
    .orderBy(desc(run.finishedAt), desc(run.startedAt), desc(run.id))
    .limit(mostPoints);
  return rows.toReversed();
}

/** What results there are in the lab, the most frequent first. */
export async function resultChoices(db: DatabaseConnection): Promise<ResultChoice[]> {
  const n = count();
  const rows = await db
    .select({ name: runResult.name, unit: runResult.unit, n })
    .from(runResult)
    .groupBy(runResult.name, runResult.unit)
    .orderBy(desc(n), asc(runResult.name))
    .limit(200);
  return rows.map(({ name, unit, n: times }) => ({ name, unit, count: times }));
}

/** Methods that runs stand on, by title. */
export async function methodsOfRuns(
  db: DatabaseConnection,
): Promise<readonly { readonly id: string; readonly title: string }[]> {
  const rows = await db
    .selectDistinctOn([run.methodId], { id: run.methodId, title: method.title })
    .from(run)
    .innerJoin(method, ofRun)
    .orderBy(run.methodId, desc(run.methodVersion));
  return rows.sort((a, b) => a.title.localeCompare(b.title));
}
