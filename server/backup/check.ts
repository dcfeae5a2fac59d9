import "~/core/stages/engines";
import { methodOf, type RunRecord } from "../../core/run";
import { asc, desc, sql } from "drizzle-orm";
import { compileMethod } from "../../core/stages";
import { capitalized, countWord, inEnglish, type Phrase } from "../../core/text";
import { evaluateRun } from "../../core/evaluate";
import { checkRunRecord } from "../../formats/run-record";
import { run } from "../database/schema";
import type { Database } from "../database/types";
import { readRun } from "../queries/stored-run";

/** Something that is wrong with a lab's data, in words. */
export interface Finding {
  /** "damaged": cannot be read; "broken": reads, but does not hold together; "differs": computes to something else today. */
  readonly kind: "damaged" | "broken" | "differs";
  readonly message: string;
  /** The table that it concerns. */
  readonly table?: string;
  /** The run that it concerns. */
  readonly runId?: string;
  /** What to do, where that is not restoring. */
  readonly advice?: string;
}

export interface CheckReport {
  readonly counts: Readonly<Record<string, number>>;
  /** How many runs were read and computed again. */
  readonly runs: number;
  readonly findings: readonly Finding[];
}

const tables = [
  "house_rules",
  "method",
  "run",
  "run_result",
  "stage",
  "trial",
  "observation",
  "trace",
  "timer",
  "run_event",
  "solution",
  "assignment",
  "assignment_source",
  "recomputation",
  "lab",
  "lab_event",
] as const;

/** Tables without which no screen can be shown. */
export const essential: readonly string[] = ["house_rules", "method", "run", "stage"];

const why = (error: unknown): string => {
  let message = "";
  for (let e = error; e instanceof Error; e = e.cause) ({ message } = e);
  return message;
};

/** Rows of each table: counting reads every page, so that one that is damaged is found by its checksum. */
export async function countRows(
  db: Database,
): Promise<{ readonly counts: Record<string, number>; readonly findings: Finding[] }> {
  const counts: Record<string, number> = {};
  const findings: Finding[] = [];
  for (const table of tables) {
    try {
      const { rows } = await db.execute<{ n: number }>(sql.raw(`select count(*)::int as n from "${table}"`));
      counts[table] = rows[0]?.n ?? 0;
    } catch (error) {
      findings.push({ kind: "damaged", table, message: `The table ${table} cannot be read: ${why(error)}` });
    }
  }
  return { counts, findings };
}

/** What must hold between rows: what is counted, what is wrong with it, and a query for the rows that break it. */
const chains: readonly (readonly [what: string, wrong: string, query: string])[] = [
  [
    "correction",
    "of a reading that is not there, or of another stage",
    `select o.id from observation o left join observation b on b.id = o.supersedes
     where o.supersedes is not null and (b.id is null or b.stage_id <> o.stage_id)`,
  ],
  [
    "reading",
    "in a trial of another stage",
    `select o.id from observation o join trial t on t.id = o.trial_id where t.stage_id <> o.stage_id`,
  ],
  [
    "reading",
    "in no stage",
    `select o.id from observation o left join stage s on s.id = o.stage_id where s.id is null`,
  ],
  ["stage", "in no run", `select s.id from stage s left join run r on r.id = s.run_id where r.id is null`],
  [
    "run",
    "without a stage",
    `select r.id from run r left join stage s on s.run_id = r.id where s.id is null`,
  ],
  [
    "run",
    "whose method is not there",
    `select r.id from run r left join method m on m.id = r.method_id and m.version = r.method_version where m.id is null`,
  ],
  [
    "run",
    "whose house rules are not there",
    `select r.id from run r left join house_rules h on h.id = r.house_rules_id where h.id is null`,
  ],
  [
    "concentration",
    "standing on one that came later",
    `select a.id from assignment_source x join assignment a on a.id = x.assignment_id
     join assignment b on b.id = x.source_id where b.seq >= a.seq`,
  ],
];

async function brokenChains(db: Database): Promise<Finding[]> {
  const findings: Finding[] = [];
  for (const [what, wrong, query] of chains) {
    try {
      const { rows } = await db.execute<{ id: string }>(sql.raw(query));
      if (rows.length > 0)
        findings.push({
          kind: "broken",
          message: `${capitalized(inEnglish(countWord(rows.length)))} ${rows.length === 1 ? what : `${what}s`} ${wrong} (${rows[0]?.id})`,
        });
    } catch (error) {
      findings.push({ kind: "damaged", message: `Cannot check for a ${what} ${wrong}: ${why(error)}` });
    }
  }
  return findings;
}

/** One run read and computed again: what is wrong with it; null where it is as it was. */
async function runFinding(
  db: Database,
  { id, title, shown }: { readonly id: string; readonly title: string; readonly shown: Phrase | null },
): Promise<Finding | null> {
  const named = `The run "${title}" (${id})`;
  let record: RunRecord | null;
  try {
    record = (await readRun(db, id))?.record ?? null;
  } catch (error) {
    return { kind: "damaged", runId: id, message: `${named} cannot be read: ${why(error)}` };
  }
  if (!record) return { kind: "damaged", runId: id, message: `${named} is listed, but not there` };
  const keys = (all: readonly { readonly key: string }[]) => all.map(({ key }) => key).join(", ");
  if (keys(record.stages) !== keys(record.method.stages))
    return { kind: "broken", runId: id, message: `${named} has other stages than its method` };
  const method = compileMethod(methodOf(record));
  if (!method.ok)
    return { kind: "broken", runId: id, message: `${named}: its method does not pass the check` };
  const shape = checkRunRecord(record);
  // A record from before a limit was set still reads and computes.
  if (!shape.ok)
    return {
      kind: "differs",
      runId: id,
      message: `${named} does not fit the form of today: ${inEnglish(shape.problem.message)}`,
    };
  const { failures, result } = evaluateRun(record);
  if (failures.length > 0)
    return { kind: "broken", runId: id, message: `${named} cannot be computed: ${why(failures[0]?.error)}` };
  const computed = result ? inEnglish(result.text) : null;
  const kept = shown === null ? null : inEnglish(shown);
  if (computed !== kept)
    return {
      kind: "differs",
      runId: id,
      message: `${named}: its result is kept as ${kept ?? "none"} and computed as ${computed ?? "none"}`,
    };
  return null;
}

/**
 * Looks at a whole lab: counts, what must hold between rows, methods, and results computed again, of all runs or of the newest
 * and some others. Changes nothing.
 */
export async function checkLab(db: Database, sample: number | "all" = "all"): Promise<CheckReport> {
  const { counts, findings } = await countRows(db);
  findings.push(...(await brokenChains(db)));
  const runs = await sampledRuns(db, sample).catch((error: unknown) => {
    findings.push({ kind: "damaged", message: `The list of runs cannot be read: ${why(error)}` });
    return [];
  });
  for (const one of runs) {
    const found = await runFinding(db, one);
    if (found) findings.push(found);
  }
  return { counts, runs: runs.length, findings };
}

async function sampledRuns(db: Database, sample: number | "all") {
  const columns = {
    id: run.id,
    title: run.title,
    shown: sql<Phrase | null>`${run.summary} -> 'result' -> 'text'`,
  };
  if (sample === "all") return db.select(columns).from(run).orderBy(asc(run.id));
  const newest = await db
    .select(columns)
    .from(run)
    .orderBy(desc(run.updatedAt))
    .limit(Math.ceil(sample / 2));
  const others = await db
    .select(columns)
    .from(run)
    .orderBy(sql`random()`)
    .limit(Math.floor(sample / 2));
  return [...new Map([...newest, ...others].map((r) => [r.id, r])).values()];
}
