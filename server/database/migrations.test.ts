import { readFileSync } from "node:fs";
import { PGlite } from "@electric-sql/pglite";
import { afterAll, expect, test } from "@jest/globals";
import { baseByPhthalateThenAcid } from "~/catalog/methods/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { compileMethod, type Method } from "~/core/run";
import { checkHouseRules } from "~/formats/house-rules";

const client = PGlite.create("memory://");
afterAll(async () => (await client).close());

const apply = async (name: string) => {
  const db = await client;
  const sql = readFileSync(`server/migrations/${name}.sql`, "utf8");
  for (const statement of sql.split("--> statement-breakpoint")) await db.exec(statement);
};

test("house rules and methods that stand in a database from before are brought along", async () => {
  const db = await client;
  await apply("0000_start");
  const { agreementOf, outliers, digits, percentError, balance, ...before } = defaultHouseRules;
  const { readabilityG, linearityG } = balance;
  const old = { ...before, balance: { readabilityG, linearityG }, plusMinus: "u" };
  await db.query("insert into house_rules (id, created_at, data) values (gen_random_uuid(), now(), $1)", [
    old,
  ]);
  const equations = Object.fromEntries(
    baseByPhthalateThenAcid.equations.map(({ name, equation }) => [name, equation]),
  );
  await db.query("insert into method (id, version, title, data) values ('m', 1, 'M', $1)", [
    { ...baseByPhthalateThenAcid, equations },
  ]);
  await apply("0001_rules_of_agreement");
  // Applied twice it changes nothing more.
  await apply("0001_rules_of_agreement");

  const rules = await db.query<{ data: unknown }>("select data from house_rules");
  expect(checkHouseRules(rules.rows[0]?.data)).toEqual({
    ok: true,
    value: { ...defaultHouseRules, plusMinus: "u" },
  });
  expect([agreementOf, outliers, digits, percentError]).not.toContain(undefined);
  const methods = await db.query<{ data: Method }>("select data from method");
  const found = methods.rows[0]!.data;
  expect(compileMethod(found)).toMatchObject({ ok: true });
  expect(new Set(found.equations.map((e) => e.equation))).toEqual(
    new Set(baseByPhthalateThenAcid.equations.map((e) => e.equation)),
  );
});
