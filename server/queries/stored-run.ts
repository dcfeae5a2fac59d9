import { eq, sql } from "drizzle-orm";
import type { HouseRules } from "../../core/rules";
import type { StageRecord } from "../../core/record";
import type { RunRecord, UsedSolution } from "../../core/run";
import type { RunState } from "../../protocol/answers";
import { type Inverse, passedOver } from "../../core/change";
import { run } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { methodVersion } from "./methods";
import { solutionCode } from "./solution-code";
import { type Phrase } from "~/core/text";

/** A run as the database holds it. */
export interface StoredRun {
  readonly record: RunRecord;
  readonly houseRulesId: string;
  readonly revision: number;
  /** The last change that has not been taken back yet; none of a timer, since time cannot be taken back. */
  readonly last: {
    readonly id: string;
    readonly description: Phrase;
    readonly inverse: Inverse;
  } | null;
  /** The change that was taken back last, while nothing else was changed since. */
  readonly next: {
    readonly id: string;
    readonly description: Phrase;
    readonly inverse: Inverse;
    readonly redo: Inverse;
  } | null;
}

/** An instant as records write it. */
const iso = (column: string) => `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

/** Rows of a subquery as a JSON list. */
const list = (columns: Readonly<Record<string, string>>, from: string, order: string) =>
  `(select coalesce(json_agg(json_build_object(${Object.entries(columns)
    .map(([name, column]) => `'${name}', ${column}`)
    .join(", ")}) order by ${order}), '[]') from ${from})`;

const removal = (prefix: string) =>
  `case when ${prefix}_at is not null then json_build_object('at', ${iso(`${prefix}_at`)}, 'person', coalesce(${prefix}_by, ''), 'reason', coalesce(${prefix}_reason, '')) end`;

const ofRun = "join stage s on s.id = x.stage_id where s.run_id = r.id";

/** One statement for all of a run: numbers that people typed stay texts, since JSON would make other ones of them. */
const statement = `
select r.id, r.title, r.sample, r.bench, r.status, ${iso("r.started_at")} as "startedAt", ${iso("r.finished_at")} as "finishedAt",
  r.method_id as "methodId", r.method_version as "methodVersion", r.house_rules_id as "houseRulesId", r.revision, r.choices, r.series, r.countersigned, h.data as rules,
  ${list({ id: "s.id", key: "s.key", choices: "s.choices" }, "stage s where s.run_id = r.id", "s.position")} as stages,
  ${list(
    {
      stageId: "x.stage_id",
      id: "x.id",
      number: "x.number",
      label: "x.label",
      kind: "x.kind",
      struck: removal("x.struck"),
    },
    `trial x ${ofRun}`,
    "x.position",
  )} as trials,
  ${list(
    {
      ...{
        stageId: "x.stage_id",
        trialId: "x.trial_id",
        id: "x.id",
        symbol: "x.symbol",
        kind: "x.kind",
        text: "x.text",
      },
      ...{ value: "x.value::text", unit: "x.unit", source: "x.source", person: "x.person", at: iso("x.at") },
      ...{ supersedes: "x.supersedes", reason: "x.reason", assignment: "x.assignment_id", point: "x.point" },
    },
    `observation x ${ofRun}`,
    "x.seq",
  )} as observations,
  ${list(
    {
      ...{
        stageId: "x.stage_id",
        id: "x.id",
        trialId: "x.trial_id",
        name: "x.name",
        xUnit: "x.x_unit",
        x: "x.x",
      },
      ...{ absorbance: "x.absorbance", decimals: "x.decimals", source: "x.source" },
      ...{ person: "x.person", at: iso("x.at") },
      removed: removal("x.removed"),
    },
    `trace x ${ofRun}`,
    "x.at, x.id",
  )} as traces,
  ${list(
    {
      ...{ stageId: "x.stage_id", id: "x.id", trialId: "x.trial_id", what: "x.what", flask: "x.flask" },
      ...{ counts: "x.counts", seconds: "x.seconds", strict: "x.strict", plannedAt: iso("x.planned_at") },
      ...{
        startedAt: iso("x.started_at"),
        endedAt: iso("x.ended_at"),
        outcome: "x.outcome",
        person: "x.person",
      },
    },
    `timer x ${ofRun}`,
    "x.seq",
  )} as timers,
  ${list(
    {
      ...{
        assignmentId: "a.id",
        solutionId: "b.id",
        number: "b.number",
        name: "b.name",
        formula: "b.formula",
      },
      ...{
        how: "a.how",
        value: "a.value::text",
        plusMinus: "a.plus_minus::text",
        shape: "a.shape",
        unit: "a.unit",
      },
      at: iso("a.at"),
    },
    `assignment a join solution b on b.id = a.solution_id where a.id in (select x.assignment_id from observation x ${ofRun})`,
    "a.seq",
  )} as solutions,
  (select json_build_object('id', e.id, 'description', coalesce(e.phrase, to_jsonb(e.description)), 'inverse', e.inverse) from run_event e
    where e.run_id = r.id and not e.undone and e.inverse ->> 'do' not in (${passedOver.map((kind) => `'${kind}'`).join(", ")}) order by e.seq desc limit 1) as last,
  (select json_build_object('id', e.id, 'description', coalesce(e.phrase, to_jsonb(e.description)), 'inverse', e.inverse, 'redo', e.redo) from run_event e
    where e.run_id = r.id and e.redo is not null order by e.seq limit 1) as next
from run r join house_rules h on h.id = r.house_rules_id where r.id = any(`;

type Row<T> = T & { readonly stageId: string };
type Trial = StageRecord["trials"][number];
type Trace = NonNullable<StageRecord["traces"]>[number];
type StoredReading = StageRecord["observations"][number];

interface Rows extends Pick<
  RunRecord,
  "id" | "title" | "sample" | "bench" | "status" | "startedAt" | "finishedAt"
> {
  readonly methodId: string;
  readonly methodVersion: number;
  readonly houseRulesId: string;
  readonly revision: number;
  readonly rules: HouseRules;
  readonly choices: NonNullable<RunRecord["choices"]> | null;
  readonly series: NonNullable<RunRecord["series"]> | null;
  readonly countersigned: NonNullable<RunRecord["countersigned"]> | null;
  readonly stages: readonly (Pick<StageRecord, "id" | "key"> & {
    readonly choices: StageRecord["choices"] | null;
  })[];
  readonly trials: readonly Row<Omit<Trial, "observations">>[];
  readonly observations: readonly Row<StoredReading & { readonly trialId: string | null }>[];
  readonly traces: readonly Row<Omit<Trace, "decimals"> & { readonly decimals: Trace["decimals"] | null }>[];
  readonly timers: readonly Row<NonNullable<StageRecord["timers"]>[number]>[];
  readonly solutions: readonly (Omit<UsedSolution, "code"> & { readonly number: number })[];
  readonly last: StoredRun["last"];
  readonly next: StoredRun["next"];
}

/** House rules never change: each row stays one object, by which what follows from it is remembered. */
const known = new Map<string, HouseRules>();
function rulesOf({ houseRulesId, rules }: Rows): HouseRules {
  const there = known.get(houseRulesId) ?? rules;
  known.set(houseRulesId, there);
  return there;
}

/** After another database was opened, what was read of the one before holds no longer. */
export const forgetRules = (): void => {
  known.clear();
  forgetRuns();
};

const own = <T extends { readonly stageId: string }>({ stageId: _, ...row }: T) => row;

/** The stages of a run with all that stands in them. */
function stagesOf({ stages, trials, observations, traces, timers }: Rows): StageRecord[] {
  const readings = new Map<string, StoredReading[]>();
  for (const { stageId, trialId, assignment, point, ...plain } of observations) {
    const read = point ? { ...plain, point } : plain;
    const holder = trialId ?? stageId;
    const all = readings.get(holder) ?? [];
    readings.set(holder, all);
    all.push(assignment == null ? read : { ...read, assignment });
  }
  return stages.map(({ id, key, choices }) => {
    const of = <T extends { readonly stageId: string }>(rows: readonly T[]) =>
      rows.filter((row) => row.stageId === id).map(own);
    const ownTraces = of(traces).map(({ decimals, ...one }): Trace =>
      decimals ? { ...one, decimals } : one,
    );
    const ownTimers = of(timers);
    return {
      ...{ id, key },
      observations: readings.get(id) ?? [],
      ...(choices ? { choices } : {}),
      ...(ownTraces.length > 0 ? { traces: ownTraces } : {}),
      ...(ownTimers.length > 0 ? { timers: ownTimers } : {}),
      trials: of(trials).map((t) => ({ ...t, observations: readings.get(t.id) ?? [] })),
    };
  });
}

/**
 * Runs as they were read or written last, by id: a change of a run that is open at a bench need not read it anew. What is remembered
 * counts only where the database names the same revision; the longest unused goes first.
 */
const remembered = new Map<string, StoredRun>();
const mostRemembered = 120;

/** Remembers a run as it is after a change. */
export function rememberRun(runId: string, stored: StoredRun): void {
  remembered.delete(runId);
  remembered.set(runId, stored);
  const [oldest] = remembered.keys();
  if (remembered.size > mostRemembered && oldest !== undefined) remembered.delete(oldest);
}

/** Runs are read anew: one of them, or all, as after something was written that no revision counts. */
export function forgetRuns(runId?: string): void {
  if (runId === undefined) remembered.clear();
  else remembered.delete(runId);
}

/** The whole of one run, by one statement; null where there is none with this id. */
export async function storedRun(db: DatabaseConnection, runId: string): Promise<StoredRun | null> {
  const there = remembered.get(runId);
  if (there) {
    const [now] = await db.select({ revision: run.revision }).from(run).where(eq(run.id, runId));
    if (now?.revision === there.revision) return there;
  }
  const read = await readRun(db, runId);
  if (read) rememberRun(runId, read);
  else forgetRuns(runId);
  return read;
}

async function storedOf(db: DatabaseConnection, found: Rows): Promise<StoredRun> {
  const { id, title, sample, bench, status, startedAt, finishedAt, houseRulesId, revision } = found;
  const solutions = found.solutions.map(({ number, ...used }) => ({ ...used, code: solutionCode(number) }));
  return {
    ...{ houseRulesId, revision, last: found.last, next: found.next },
    record: {
      format: "steady-bead/run",
      formatVersion: 1,
      ...{ id, title, sample, bench, status, startedAt, finishedAt },
      ...(found.countersigned ? { countersigned: found.countersigned } : {}),
      method: await methodVersion(db, found.methodId, found.methodVersion),
      ...(found.choices ? { choices: found.choices } : {}),
      ...(found.series ? { series: found.series } : {}),
      houseRules: rulesOf(found),
      ...(solutions.length > 0 ? { solutions } : {}),
      stages: stagesOf(found),
    },
  };
}

/** Runs from the rows themselves, whatever is remembered; those that are not there are left out. */
export async function readRuns(db: DatabaseConnection, ids: readonly string[]): Promise<StoredRun[]> {
  const { rows } = await db.execute<Rows & Record<string, unknown>>(
    sql`${sql.raw(statement)}${sql.param(ids)}::uuid[])`,
  );
  const stored: StoredRun[] = [];
  for (const found of rows) stored.push(await storedOf(db, found));
  return stored;
}

/** The same of one run; null where there is none with this id. */
export const readRun = async (db: DatabaseConnection, runId: string): Promise<StoredRun | null> =>
  (await readRuns(db, [runId]))[0] ?? null;

/** The whole of one run as the core takes it; null where there is none with this id. */
export async function loadRunRecord(db: DatabaseConnection, runId: string): Promise<RunRecord | null> {
  return (await storedRun(db, runId))?.record ?? null;
}

export const stateOf = ({ record, revision, last, next }: StoredRun): RunState => ({
  record,
  // Nothing is undone in a run that is countersigned.
  undo: last && !record.countersigned ? { eventId: last.id, description: last.description } : null,
  redo: next && !record.countersigned ? { eventId: next.id, description: next.description } : null,
  revision,
});

/** A run and the change that undo would take back; null where there is no such run. */
export async function loadRunState(db: DatabaseConnection, runId: string): Promise<RunState | null> {
  const stored = await storedRun(db, runId);
  return stored && stateOf(stored);
}
