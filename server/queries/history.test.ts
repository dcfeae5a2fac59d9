import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { historyAsked, type HistoryRow, resultKey } from "~/protocol/history";
import { evaluateRun, resultsIn } from "~/core/evaluate";
import { inEnglish } from "~/core/text";
import { eq } from "drizzle-orm";
import { changeRun } from "../commands/change-run";
import { run } from "../database/schema";
import { type OpenDatabase, openDatabase } from "../lab/open-database";
import { seedDemo } from "../seed/demo";
import { historyOf, resultChoices, resultsInTime } from "./history";
import { listShelf } from "./shelf";
import { loadRunRecord } from "./stored-run";

/* What the history finds in the demo lab, against what its records say when all of them are read. */

let open: OpenDatabase;
const asked = (search: Readonly<Record<string, string>>) => historyAsked(new URLSearchParams(search));
const find = async (search: Readonly<Record<string, string>>): Promise<readonly HistoryRow[]> => {
  const pages: HistoryRow[] = [];
  for (let page = 0; ; page++) {
    const { rows, total } = await historyOf(open.db, asked({ ...search, page: String(page) }));
    pages.push(...rows);
    if (pages.length >= total) {
      expect(pages).toHaveLength(total);
      return pages;
    }
  }
};
const titles = async (search: Readonly<Record<string, string>>) =>
  (await find(search)).map((r) => r.title).toSorted();

beforeAll(async () => {
  open = await openDatabase(null);
  await seedDemo(open.db, new Date("2026-11-28T08:00:00Z"));
}, 120_000);
afterAll(() => open.close());

async function allRecords() {
  const ids = await open.db.select({ id: run.id }).from(run);
  const records = [];
  for (const { id } of ids) records.push((await loadRunRecord(open.db, id))!);
  return records;
}

describe("history", () => {
  test("holds every run once over its pages, each with the result that it was for", async () => {
    const [rows, records] = [await find({ sort: "title", order: "up" }), await allRecords()];
    expect(rows.map(({ id }) => id).toSorted()).toEqual(records.map(({ id }) => id).toSorted());
    expect(rows.map(({ title }) => title.toLowerCase())).toEqual(
      rows.map(({ title }) => title.toLowerCase()).toSorted(),
    );
    for (const record of records) {
      const row = rows.find(({ id }) => id === record.id);
      const main = resultsIn(evaluateRun(record)).find((found) => found.main);
      const expected = record.status === "open" || !main ? null : [main.value, main.u, inEnglish(main.shown)];
      expect([
        record.title,
        row?.result && [row.result.value, row.result.u, inEnglish(row.result.shown)],
      ]).toEqual([record.title, expected]);
    }
  });

  test("finds by text, sample, person, method, bottle, date and state what records say of it", async () => {
    const records = await allRecords();
    const like = (of: (record: (typeof records)[number]) => boolean) =>
      records
        .filter(of)
        .map(({ title }) => title)
        .toSorted();
    expect(await titles({ q: "CHECK week 13" })).toEqual(["Check acid, week 13"]);
    expect(await titles({ q: "100% _" })).toEqual([]);
    expect(await titles({ sample: "check acid" })).toHaveLength(26);
    expect(await titles({ person: "reed" })).toEqual(like(({ bench }) => bench === "J. Reed"));
    const method = "base-by-phthalate-then-acid";
    expect(await titles({ method })).toEqual(like((r) => r.method.id === method));
    expect(await titles({ state: "open" })).toEqual(like(({ status }) => status === "open"));
    expect(await titles({ from: "2026-11-20", to: "2026-11-25" })).toEqual(
      like(({ startedAt }) => startedAt >= "2026-11-20" && startedAt < "2026-11-26"),
    );
    const shelf = await listShelf(open.db);
    const used = shelf.find(({ id }) => records.some((r) => r.solutions?.some((s) => s.solutionId === id)))!;
    const found = await titles({ solution: used.code });
    expect(found).toEqual(
      expect.arrayContaining(like((r) => !!r.solutions?.some((s) => s.solutionId === used.id))),
    );
    expect(found.length).toBeLessThan(records.length);
  });

  test("takes a result within bounds, in its unit, and sorts by it; further results can be asked for too", async () => {
    const result = { name: "Concentration of the acid", unit: "mol/L" };
    const key = resultKey(result);
    const rows = await find({ result: key, least: "0.0998", most: "0,1001", sort: "result", order: "up" });
    expect(rows.length).toBeGreaterThan(5);
    const values = rows.map((row) => row.result!.value);
    expect(values).toEqual(values.toSorted((a, b) => a - b));
    expect([values[0]! >= 0.0998, values.at(-1)! <= 0.1001]).toEqual([true, true]);
    const choices = await resultChoices(open.db);
    expect(choices[0]).toMatchObject(result);
    const base = choices.find(({ name }) => name === "Concentration of the base")!;
    expect(await find({ result: resultKey(base) })).toHaveLength(base.count);
    const inTime = await resultsInTime(open.db, asked({ result: key, sample: "check" }));
    expect(inTime.map(({ title }) => title)).toEqual(
      Array.from({ length: 26 }, (_, i) => `Check acid, week ${i + 1}`),
    );
  });

  test("what makes no sense in an address is left out, whatever it holds", async () => {
    const odd = {
      page: "-3",
      size: "7",
      from: "yesterday",
      solution: "x",
      least: "a",
      sort: "1;drop",
      state: "?",
    };
    const some = { ...odd, result: "|", q: "'\"%", method: "none" };
    expect((await historyOf(open.db, asked(odd))).total).toBe((await allRecords()).length);
    expect(await historyOf(open.db, asked(some))).toEqual({ rows: [], total: 0 });
  });

  test("a reopened run has no result any more, and an archived one is found where it is asked for", async () => {
    const [week] = await find({ q: "week 3" });
    await changeRun(open.db, week!.id, { intent: "reopen" });
    expect((await find({ q: "week 3" }))[0]?.result).toBeNull();
    await changeRun(open.db, week!.id, { intent: "archive" });
    expect((await find({ q: "check week 3" })).map(({ id }) => id)).not.toContain(week!.id);
    const [archived] = await find({ q: "week 3", state: "archived" });
    expect(archived?.result?.value).toBe(week!.result!.value);
    await open.db.delete(run).where(eq(run.id, week!.id));
    expect(await titles({ q: "week 3", state: "archived" })).toEqual([]);
  });
});
