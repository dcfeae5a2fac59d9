import { readFileSync } from "node:fs";
import path from "node:path";
import type { PGlite } from "@electric-sql/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import type { Database } from "./types";

const folder = () => path.resolve("server/migrations");

interface Journal {
  readonly entries: readonly { readonly when: number; readonly tag: string }[];
}

/** How far a database has come, beside this program: as far, behind it, beyond it, or not begun. */
export type Standing = "current" | "behind" | "beyond" | "new";

/** Where a database stands, by the last migration that it has seen. */
export async function standingOf(client: PGlite): Promise<Standing> {
  const { rows: there } = await client.query<{ name: string | null }>(
    "select to_regclass('drizzle.__drizzle_migrations')::text as name",
  );
  if (there[0]?.name == null) return "new";
  const { rows } = await client.query<{ last: string | null }>(
    "select max(created_at)::text as last from drizzle.__drizzle_migrations",
  );
  const last = Number(rows[0]?.last ?? 0);
  const journal = JSON.parse(readFileSync(path.join(folder(), "meta/_journal.json"), "utf8")) as Journal;
  const own = Math.max(...journal.entries.map(({ when }) => when));
  if (last === 0) return "new";
  return last === own ? "current" : last < own ? "behind" : "beyond";
}

export const bringUpToDate = (db: Database): Promise<void> => migrate(db, { migrationsFolder: folder() });
