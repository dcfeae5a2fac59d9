import { readFileSync } from "node:fs";
import { PGlite } from "@electric-sql/pglite";
import { afterAll, expect, test } from "@jest/globals";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { type Method } from "~/core/method";
import { compileMethod } from "~/core/stages";
import { checkHouseRules } from "~/formats/house-rules";
import { plain } from "~/core/testing/plain";

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
  expect(plain(checkHouseRules(rules.rows[0]?.data))).toEqual({
    ok: true,
    value: { ...defaultHouseRules, plusMinus: "u" },
  });
  expect([agreementOf, outliers, digits, percentError]).not.toContain(undefined);
  const methods = await db.query<{ data: Method }>("select data from method");
  const found = methods.rows[0]!.data;
  expect(plain(compileMethod(found))).toMatchObject({ ok: true });
  expect(new Set(found.equations.map((e) => e.equation))).toEqual(
    new Set(baseByPhthalateThenAcid.equations.map((e) => e.equation)),
  );
});

test("readings from before stand on no bottle, and a bottle, its concentration and what it stands on can be written", async () => {
  const db = await client;
  await db.exec(`
    insert into run (id, method_id, method_version, house_rules_id, title, sample, bench, search, status, started_at, updated_at, summary)
      select '01930000-0000-7000-8000-00000000000a', 'm', 1, id, 'R', '', '', '', 'open', now(), now(), '{}' from house_rules limit 1;
    insert into stage (id, run_id, key, position)
      values ('01930000-0000-7000-8000-00000000000b', '01930000-0000-7000-8000-00000000000a', 'standardize', 0);
    insert into observation (id, stage_id, symbol, kind, text, value, unit, source, person, at)
      values ('01930000-0000-7000-8000-00000000000c', '01930000-0000-7000-8000-00000000000b', 'P', 'purity', '99.90', 99.90, '%', 'typed', 'x', now());
  `);
  await apply("0002_shelf");
  const read = await db.query<{ text: string; value: string; assignment_id: string | null }>(
    "select text, value, assignment_id from observation",
  );
  expect(read.rows).toEqual([{ text: "99.90", value: "99.90", assignment_id: null }]);
  await db.exec(`
    insert into solution (id, form, formula, name, made_at, made_by, amount_unit, hazards, note)
      values ('01930000-0000-7000-8000-000000000001', 'solid', 'KHC8H4O4', 'phthalate', now(), '', 'g', '', ''),
             ('01930000-0000-7000-8000-000000000002', 'solution', 'NaOH', 'base', now(), '', 'mL', '', '');
    insert into assignment (id, solution_id, at, person, how, value, plus_minus, shape, unit)
      values ('01930000-0000-7000-8000-000000000003', '01930000-0000-7000-8000-000000000001', now(), '', 'certificate', 100.00, 0.05, 'rectangular', '%'),
             ('01930000-0000-7000-8000-000000000004', '01930000-0000-7000-8000-000000000002', now(), '', 'standardized', 0.10, 0.0001, 'normal', 'mol/L');
    insert into assignment_source values ('01930000-0000-7000-8000-000000000004', '01930000-0000-7000-8000-000000000003');
  `);
  // Numbered in the order in which they came; a trailing zero is kept.
  const bottles = await db.query<{ number: number; revision: number; value: string }>(
    "select s.number, s.revision, a.value from solution s join assignment a on a.solution_id = s.id order by s.number",
  );
  expect(bottles.rows).toEqual([
    { number: 1, revision: 1, value: "100.00" },
    { number: 2, revision: 1, value: "0.10" },
  ]);
  await expect(
    db.exec(
      "insert into assignment_source values ('01930000-0000-7000-8000-000000000004', '01930000-0000-7000-8000-0000000000ff')",
    ),
  ).rejects.toThrow(/foreign key/);
});

test("rows from before are counted in the order of their ids, and house rules gain what they did all along", async () => {
  const db = await client;
  await apply("0003_assays");
  await db.exec(`
    insert into observation (id, stage_id, symbol, kind, text, value, unit, source, person, at)
      select ('01930000-0000-7000-8000-0000000000' || n)::uuid, '01930000-0000-7000-8000-00000000000b', 'P', 'purity', n::text, n, '%', 'typed', 'x', now()
      from unnest(array[30, 10, 20]) n;
  `);
  const before = {
    ...defaultHouseRules,
    burette: { capacityMl: 50, decimals: 1, readingHalfWidthMl: "0.05" },
  };
  const { words, average, ...old } = before;
  await db.query("update house_rules set data = $1", [
    { ...old, temperature: { halfRangeC: "3", shape: "rectangular" } },
  ]);
  const making = { title: "made", houseRules: { ...old, burette: { ...before.burette, decimals: 2 } } };
  await db.query("update solution set making = $1 where formula = 'NaOH'", [making]);
  await apply("0004_live_bench");
  const counted = await db.query<{ text: string; seq: number }>(
    "select text, seq from observation order by seq",
  );
  expect(counted.rows.map((row) => row.text)).toEqual(["99.90", "10", "20", "30"]);
  await db.exec(`
    insert into observation (id, stage_id, symbol, kind, text, value, unit, source, person, at)
      values ('01920000-0000-7000-8000-000000000001', '01930000-0000-7000-8000-00000000000b', 'P', 'purity', 'late', 1, '%', 'typed', 'x', now())`);
  const last = await db.query<{ text: string }>("select text from observation order by seq desc limit 1");
  expect(last.rows).toEqual([{ text: "late" }]);

  // Drops were counted by nobody then: the usual ones are taken where nothing is said.
  const { dropsPerMl: _, ...burette } = defaultHouseRules.burette;
  const rules = await db.query<{ data: unknown }>("select data from house_rules");
  expect(plain(checkHouseRules(rules.rows[0]?.data))).toEqual({
    ok: true,
    value: {
      ...defaultHouseRules,
      burette: { ...burette, resolutionMl: "0.1", readingHalfWidthMl: "0.05" },
    },
  });
  expect([words, average]).not.toContain(undefined);
  const made = await db.query<{ making: { title: string; houseRules: unknown } }>(
    "select making from solution where formula = 'NaOH'",
  );
  expect(made.rows[0]?.making.title).toBe("made");
  expect(plain(checkHouseRules(made.rows[0]?.making.houseRules))).toMatchObject({
    ok: true,
    value: { burette: { resolutionMl: "0.01" }, words: { titer: "titer" } },
  });
});

test("a change of house rules is taken back by the rules themselves, and concluding is no stage any more", async () => {
  const db = await client;
  await apply("0005_a_way_back");
  const run = "01930000-0000-7000-8000-00000000000a";
  await db.exec(`
    update method set data = jsonb_set(data, '{stages}', data -> 'stages' || '[{"kind": "conclude", "key": "end", "title": "End", "of": "determine"}]');
    insert into stage (id, run_id, key, position) values (gen_random_uuid(), '${run}', 'end', 9);
    insert into run_event (id, run_id, at, person, description, inverse)
      select gen_random_uuid(), '${run}', now(), 'x', 'house rules for this run', jsonb_build_object('do', 'rules', 'houseRulesId', id) from house_rules;
  `);
  await apply("0006_house_in_order");
  await apply("0006_house_in_order");
  const events = await db.query<{ inverse: { do: string; rules: unknown } }>("select inverse from run_event");
  expect(events.rows).toHaveLength(1);
  expect(events.rows[0]?.inverse.do).toBe("rules");
  expect(plain(checkHouseRules(events.rows[0]?.inverse.rules))).toMatchObject({ ok: true });
  const methods = await db.query<{ data: Method }>("select data from method");
  expect(methods.rows[0]?.data.stages).toEqual(baseByPhthalateThenAcid.stages);
  const stages = await db.query<{ key: string }>("select key from stage");
  expect(stages.rows).toEqual([{ key: "standardize" }]);
});

test("bottles keep their numbers, which count on from the highest; a lab from before is in no journal yet", async () => {
  const db = await client;
  await db.exec("insert into lab (id, created_at, clock_high) values (gen_random_uuid(), now(), now())");
  await apply("0007_chosen_inputs");
  await apply("0008_journal");
  const lab = await db.query("select journal, journal_seq::int as seq, journal_check as check from lab");
  expect(lab.rows).toEqual([{ journal: null, seq: 0, check: "" }]);
  await db.exec(`
    insert into solution (id, number, form, formula, name, made_at, made_by, amount_unit, hazards, note)
      select gen_random_uuid(), coalesce(max(number), 0) + 1, 'solution', 'HCl', 'acid', now(), '', 'mL', '', '' from solution`);
  const bottles = await db.query<{ number: number }>("select number from solution order by number");
  expect(bottles.rows.map(({ number }) => number)).toEqual([1, 2, 3]);
});

test("changes from before can be undone and are told in the words that they were written with; none can be made again", async () => {
  const db = await client;
  await apply("0009_redo");
  await apply("0010_what_was_done");
  const told = "coalesce(phrase, to_jsonb(description)) as told";
  const before = await db.query(`select ${told}, redo, undone from run_event`);
  expect(before.rows).toEqual([{ told: "house rules for this run", redo: null, undone: false }]);
  const phrase = { text: "{0} of the run", values: ["reopening"] };
  await db.query("update run_event set phrase = $1", [phrase]);
  expect((await db.query(`select ${told} from run_event`)).rows).toEqual([{ told: phrase }]);
});
