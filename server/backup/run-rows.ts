import { eq, sql } from "drizzle-orm";
import { run, runEvent, recomputation, stage } from "../database/schema";
import type { Database, Transacting } from "../database/types";

/** All rows that belong to one run, table by table, as the database writes them: JSON texts that go back unread. */
export interface RunRows {
  readonly runId: string;
  readonly title: string;
  readonly tables: Readonly<Record<string, string>>;
}

const stagesOf = "select id from stage where run_id = $run";
const used = `select assignment_id from observation where stage_id in (${stagesOf}) and assignment_id is not null`;

/** What is taken of each table, in the order in which it is put back. */
const parts: readonly (readonly [table: string, where: string])[] = [
  ["method", "(id, version) in (select method_id, method_version from run where id = $run)"],
  ["house_rules", "id in (select house_rules_id from run where id = $run) or run_id = $run"],
  ["run", "id = $run"],
  ["solution", `id in (select solution_id from assignment where id in (${used}))`],
  ["assignment", `id in (${used})`],
  ["stage", "run_id = $run"],
  ["trial", `stage_id in (${stagesOf})`],
  ["observation", `stage_id in (${stagesOf})`],
  ["trace", `stage_id in (${stagesOf})`],
  ["timer", `stage_id in (${stagesOf})`],
  ["run_event", "run_id = $run"],
  ["recomputation", "run_id = $run"],
];

const asText = (runId: string) => `'${runId.replaceAll("'", "''")}'::uuid`;

/** The rows of one run. Throws where there is none with this id. */
export async function rowsOfRun(db: Database, runId: string): Promise<RunRows> {
  const [found] = await db.select({ title: run.title }).from(run).where(eq(run.id, runId));
  if (!found) throw new Error("The backup holds no run with this id");
  const tables: Record<string, string> = {};
  for (const [table, where] of parts) {
    const query = `select coalesce(jsonb_agg(to_jsonb(t)), '[]')::text as rows from "${table}" t where ${where.replaceAll("$run", asText(runId))}`;
    const { rows } = await db.execute<{ rows: string }>(sql.raw(query));
    tables[table] = rows[0]?.rows ?? "[]";
  }
  return { runId, title: found.title, tables };
}

/**
 * Puts one run back as a backup has it, in place of what stands there under its id: all or nothing. Bottles, methods and house
 * rules that it names are put back where they are missing, and stay as they are where they are there.
 */
export async function putRunBack(db: Transacting, { runId, tables }: RunRows): Promise<void> {
  await db.transaction(async (tx) => {
    const put = (table: string, rows: string, set = "") =>
      tx.execute(
        sql`insert into ${sql.identifier(table)} overriding system value
            select * from jsonb_populate_recordset(null::${sql.identifier(table)}, ${rows}::jsonb) ${sql.raw(set)}`,
      );
    const keep = "on conflict do nothing";
    const [there] = await tx.select({ id: run.id }).from(run).where(eq(run.id, runId));
    await put("method", tables.method ?? "[]", keep);
    // Rules made for this run name it, and it names them: their name comes when it is there.
    const rules = JSON.parse(tables.house_rules ?? "[]") as { id: string; run_id: string | null }[];
    await put("house_rules", JSON.stringify(rules.map((row) => ({ ...row, run_id: null }))), keep);
    if (there) {
      await tx.delete(stage).where(eq(stage.runId, runId));
      await tx.delete(runEvent).where(eq(runEvent.runId, runId));
      await tx.delete(recomputation).where(eq(recomputation.runId, runId));
      const [row] = JSON.parse(tables.run ?? "[]") as Record<string, unknown>[];
      const columns = Object.keys(row ?? {}).filter((column) => column !== "id" && column !== "revision");
      const list = columns.map((column) => `"${column}" = b."${column}"`).join(", ");
      await tx.execute(
        sql`update run set ${sql.raw(list)}, revision = run.revision + 1
            from jsonb_populate_recordset(null::run, ${tables.run ?? "[]"}::jsonb) b where run.id = b.id`,
      );
    } else await put("run", tables.run ?? "[]");
    for (const { id, run_id } of rules)
      if (run_id !== null) await tx.execute(sql`update house_rules set run_id = ${run_id} where id = ${id}`);
    for (const [table] of parts.slice(3)) {
      const bottles = table === "solution" || table === "assignment";
      await put(table, tables[table] ?? "[]", bottles ? keep : "");
    }
  });
}
