import { getTableColumns, sql } from "drizzle-orm";
import type { PgTable } from "drizzle-orm/pg-core";
import type { DatabaseConnection } from "./types";

/**
 * Inserts rows by one statement, in their order: they go as one JSON text, which the embedded database takes many times faster than a
 * parameter for each of their values. Columns that no row names get their defaults.
 */
export async function insertMany<T extends PgTable>(
  db: DatabaseConnection,
  table: T,
  rows: readonly T["$inferInsert"][],
): Promise<void> {
  if (rows.length === 0) return;
  const values: readonly Record<string, unknown>[] = rows;
  const named = Object.entries(getTableColumns(table)).filter(([key]) =>
    values.some((row) => row[key] !== undefined),
  );
  const json = JSON.stringify(
    values.map((row) => Object.fromEntries(named.map(([key, { name }]) => [name, row[key] ?? null]))),
  );
  const names = sql.join(
    named.map(([, { name }]) => sql.identifier(name)),
    sql`, `,
  );
  await db.execute(
    sql`insert into ${table} (${names}) select ${names} from json_populate_recordset(null::${table}, ${json}::json)`,
  );
}
