import { sql } from "drizzle-orm";
import { Bug } from "../../core/result";
import type { DatabaseConnection } from "./types";

/**
 * Inserts many rows within a transaction without having the database look up each key that they name one by one, which is half of what
 * inserting them takes. Where it does not let this user leave that out, it looks them up. Whoever calls this counts afterwards what stands
 * under its keys: see `mustStandUnderRuns`.
 */
export async function withoutLookups(db: DatabaseConnection, insert: () => Promise<void>): Promise<void> {
  const { rows } = await db.execute(
    sql`select has_parameter_privilege('session_replication_role', 'set') as allowed`,
  );
  if (rows[0]?.allowed !== true) return insert();
  await db.execute(sql`set local session_replication_role = replica`);
  await insert();
  await db.execute(sql`set local session_replication_role = origin`);
}

/** How many of each stand under some runs. */
export interface UnderRuns {
  readonly stages: number;
  readonly trials: number;
  readonly readings: number;
  readonly results: number;
}

export const nothingUnderRuns: UnderRuns = { stages: 0, trials: 0, readings: 0, results: 0 };

export const bothUnderRuns = (a: UnderRuns, b: UnderRuns): UnderRuns => ({
  stages: a.stages + b.stages,
  trials: a.trials + b.trials,
  readings: a.readings + b.readings,
  results: a.results + b.results,
});

/**
 * Counts the stages, trials, readings and results that stand under these runs, each under keys that are there, the bottle of a reading too. Throws
 * where there are not as many as were written.
 */
export async function mustStandUnderRuns(
  db: DatabaseConnection,
  runIds: readonly string[],
  written: UnderRuns,
): Promise<void> {
  const named = sql`any(${sql.param(runIds)}::uuid[])`;
  const { rows } = await db.execute(sql`
    select
      (select count(*)::int from run r join stage s on s.run_id = r.id where r.id = ${named}) as stages,
      (select count(*)::int from stage s join trial t on t.stage_id = s.id where s.run_id = ${named}) as trials,
      (select count(*)::int from stage s join observation o on o.stage_id = s.id
        left join trial t on t.id = o.trial_id and t.stage_id = o.stage_id
        left join assignment a on a.id = o.assignment_id
        where s.run_id = ${named} and (o.trial_id is null or t.id is not null)
        and (o.assignment_id is null or a.id is not null)) as readings,
      (select count(*)::int from run r join run_result o on o.run_id = r.id where r.id = ${named}) as results`);
  const there: Partial<Record<string, unknown>> = rows[0] ?? {};
  for (const [what, count] of Object.entries(written))
    if (there[what] !== count)
      throw new Bug(`${String(there[what])} of ${count} ${what} stand under their runs`);
}
