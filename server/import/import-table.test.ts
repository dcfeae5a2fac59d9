import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { baseByPhthalateThenAcid as method } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { mustHold } from "~/core/result";
import { inEnglish } from "~/core/text";
import type { Mapping } from "~/formats/table/mapping";
import { sheetOfText } from "~/formats/table/sheet";
import { summarize } from "../commands/summary";
import { run } from "../database/schema";
import { type OpenDatabase, openDatabase } from "../lab/open-database";
import { loadRunRecord } from "../queries/stored-run";
import { importTable, lookAtTable, openedTable, tableTargets, type Working } from "./import-table";

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
}, 60_000);
afterAll(() => open.close());

const now = new Date("2026-11-28T09:00:00Z");
const quiet: Working = () => Promise.resolve();
const rowsOf = (count: number, final = (i: number) => `20,0${i % 3}`) =>
  [
    "Sample;Date;Trial;Aliquot of acid;Initial reading;Final reading",
    ...Array.from(
      { length: count },
      (_, i) => `KT-${Math.floor(i / 3)};14.11.2025;${(i % 3) + 1};25,00;0,00;${final(i)}`,
    ),
  ].join("\n");

async function asked(text: string) {
  const sheet = mustHold(sheetOfText(text));
  const opened = openedTable(sheet);
  const { targets, guessed } = await tableTargets(open.db, sheet, method, "determine");
  const given = targets.find(({ needed, per }) => needed && per === "run")!.key;
  const mapping: Mapping = {
    ...{ methodId: method.id, stageKey: "determine", headings: opened.headings, decimal: opened.decimal },
    ...{ dates: opened.orders[1]![0]!, zeros: false, columns: guessed, fixed: { [given]: "0.1000" } },
  };
  return { sheet, mapping, method, person: "M. Finn", file: "class.csv", from: null };
}
const count = () => open.db.$count(run);

test("a table is understood by its headings, and imported once, however often it is sent", async () => {
  const table = await asked(rowsOf(6));
  expect(table.mapping).toMatchObject({ headings: true, decimal: "comma", dates: "dmy" });
  const looked = mustHold(await lookAtTable(open.db, table, now, quiet));
  expect(looked).toMatchObject({ runs: 2, isHere: 0, withoutResult: 0, problems: [] });
  expect(await count()).toBe(0);
  expect(await importTable(open.db, table, now, quiet)).toEqual({ ok: true, value: { runs: 2, isHere: 0 } });
  const later = new Date("2026-12-24T09:00:00Z");
  expect(await importTable(open.db, { ...table, person: "J. Reed" }, later, quiet)).toEqual({
    ok: true,
    value: { runs: 0, isHere: 2 },
  });
  expect(await count()).toBe(2);
  const rows = await open.db.select({ id: run.id, sample: run.sample, status: run.status }).from(run);
  expect(rows.map(({ sample, status }) => [sample, status]).sort()).toEqual([
    ["KT-0", "finished"],
    ["KT-1", "finished"],
  ]);
  // Lists show of each what its readings give, though it was evaluated before it was closed.
  for (const { id, summary } of await open.db.select({ id: run.id, summary: run.summary }).from(run))
    expect(summary).toEqual(summarize((await loadRunRecord(open.db, id))!));
  // What is in the lab is what was looked at.
  const record = await loadRunRecord(open.db, rows[0]!.id);
  expect(
    record!.stages[1]!.trials.flatMap(({ observations }) => observations.map(({ text }) => text)),
  ).toEqual([...["25.00", "0.00", "20.00"], ...["25.00", "0.00", "20.01"], ...["25.00", "0.00", "20.02"]]);
});

test("a row that is wrong keeps all of it out, and so does a stop in the middle", async () => {
  const before = await count();
  const wrong = await importTable(
    open.db,
    await asked(rowsOf(9, (i) => (i === 7 ? "20,o1" : "21,00"))),
    now,
    quiet,
  );
  expect(wrong.ok ? "" : inEnglish(wrong.problem)).toBe(
    '"20,o1" is not a number, or its decimals stand behind another sign',
  );
  let written = 0;
  const stopped: Working = (what, done) => {
    if (what === "writing") written = done;
    return what === "writing" && done > 0 ? Promise.reject(new Error("stopped")) : Promise.resolve();
  };
  await expect(importTable(open.db, await asked(rowsOf(330, () => "22,00")), now, stopped)).rejects.toThrow(
    "stopped",
  );
  // Some were written already, and were taken back.
  expect(written).toBeGreaterThan(50);
  expect(await count()).toBe(before);
});
