import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, expect, jest, test } from "@jest/globals";
import { connect, openClient } from "./connection";
import { prepareEmptyDatabase, putEmptyDatabase } from "./empty-database";
import { bringUpToDate, standingOf } from "./migrations";

/* What a new lab begins with: a copy of what the build prepared, or where that is no good, a database made on the spot. */

const root = mkdtempSync(path.join(tmpdir(), "steady-bead-empty-"));
const at = (name: string) => path.join(root, name);
afterAll(() => rmSync(root, { recursive: true, force: true }));

/** All columns, indexes and constraints of a database in a folder, and how far its migrations have come. */
async function tablesIn(folder: string) {
  const client = await openClient(folder);
  try {
    const standing = await standingOf(client);
    await bringUpToDate(connect(client));
    const ask = async (query: string) =>
      (await client.query<{ line: string }>(query)).rows.map((r) => r.line);
    return {
      standing,
      columns: await ask(
        `select table_name || '.' || column_name || ' ' || data_type || ' ' || is_nullable || coalesce(' ' || column_default, '') as line
         from information_schema.columns where table_schema = 'public' order by 1`,
      ),
      indexes: await ask(`select indexdef as line from pg_indexes where schemaname = 'public' order by 1`),
      constraints: await ask(
        `select conrelid::regclass || ' ' || pg_get_constraintdef(oid) as line
         from pg_constraint where connamespace = 'public'::regnamespace order by 1`,
      ),
      rows: await ask(
        `select relname as line from pg_stat_user_tables where schemaname = 'public' and n_live_tup > 0 order by 1`,
      ),
    };
  } finally {
    await client.close();
  }
}

test("a copy has every table that a database made anew gets, and holds nothing; a spoiled one is told and not taken", async () => {
  const prepared = await prepareEmptyDatabase();
  await putEmptyDatabase(at("copy"));
  const copy = await tablesIn(at("copy"));
  expect(copy.standing).toBe("current");
  expect(copy.columns.length).toBeGreaterThan(80);
  expect(copy.rows).toEqual([]);

  mkdirSync(at("spoiled"));
  const bytes = readFileSync(prepared);
  writeFileSync(path.join(at("spoiled"), path.basename(prepared)), bytes.subarray(0, bytes.length / 2));
  const logged = jest.spyOn(console, "error").mockImplementation(() => undefined);
  await putEmptyDatabase(at("anew"), at("spoiled"));
  expect(logged.mock.calls.join(" ")).toMatch(/The prepared database cannot be read; one is made anew/);
  logged.mockRestore();
  const anew = await tablesIn(at("anew"));
  expect(anew.standing).toBe("new");
  expect({ ...copy, standing: "" }).toEqual({ ...anew, standing: "" });
  // Nothing of the spoiled one is left beside it.
  expect(readdirSync(at("anew"))).toContain("PG_VERSION");
});
