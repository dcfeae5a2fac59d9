import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { eq } from "drizzle-orm";
import { baseByPhthalateThenAcid as method } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { methods } from "~/catalog/methods";
import type { Method } from "~/core/method";
import { mustHold } from "~/core/result";
import { plain } from "~/core/testing/plain";
import { inEnglish } from "~/core/text";
import { lineBefore, tableStages } from "~/formats/table/columns";
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

async function asked(text: string, of: Method = method, stageKey = "determine") {
  const sheet = mustHold(sheetOfText(text));
  const opened = openedTable(sheet);
  const { targets, guessed } = await tableTargets(open.db, sheet, of, stageKey);
  // What the screen shows beside the table: what is needed, and what the method presumes.
  const beside = targets.filter(({ needed, usual, per }) => usual !== "" || (needed && per === "run"));
  const fixed = Object.fromEntries(beside.map(({ key, usual }) => [key, usual || "0.1000"]));
  const mapping: Mapping = {
    ...{ methodId: of.id, stageKey, headings: opened.headings, decimal: opened.decimal },
    ...{ dates: opened.orders[1]![0]!, zeros: false, columns: guessed, fixed },
  };
  return { sheet, mapping, method: of, person: "M. Finn", file: "class.csv", from: null };
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

test("flasks of a day come in with their standards and blanks, in every assay with a line", async () => {
  const assays = methods.flatMap((assay) =>
    tableStages(assay).flatMap((stage) => (stage.kind === "unknown" ? [{ assay, stage }] : [])),
  );
  expect(assays.length).toBeGreaterThan(4);
  for (const { assay, stage } of assays) {
    const amounts = lineBefore(assay, stage.key)!.series.values;
    const { targets } = await tableTargets(open.db, mustHold(sheetOfText("Sample")), assay, stage.key);
    const labels = targets
      .filter(({ per, needed, usual }) => per === "row" && needed && usual === "")
      .map(({ label, unit }) => [inEnglish(label), unit].filter(Boolean).join(", "));
    const row = (sample: string, of: (label: string) => string) =>
      [sample, "14.11.2025", ...labels.map(of)].join(";");
    const absorbance = (value: number) => (label: string) =>
      label === "Absorbance" ? value.toFixed(3) : null;
    const table = [
      ["Sample", "Date", ...labels].join(";"),
      row("Blank", (label) => absorbance(0)(label) ?? ""),
      ...amounts.map((amount, i) =>
        row("Std", (label) => absorbance(0.1 * i)(label) ?? (label.includes("(standards)") ? amount : "")),
      ),
      // Where the amount of the sample is counted, it is five.
      row("KT-9", (label) => absorbance(0.25)(label) ?? (label.includes("(standards)") ? "" : "5")),
    ].join("\n");
    const sent = await asked(table, assay, stage.key);
    const looked = mustHold(await lookAtTable(open.db, sent, now, quiet));
    expect([assay.id, plain(looked.problems), looked.withoutResult]).toEqual([assay.id, [], 0]);
    expect(mustHold(await importTable(open.db, sent, now, quiet))).toEqual({ runs: 1, isHere: 0 });
    expect(mustHold(await importTable(open.db, sent, now, quiet))).toEqual({ runs: 0, isHere: 1 });
    const [stored] = await open.db.select().from(run).where(eq(run.methodId, assay.id));
    const record = (await loadRunRecord(open.db, stored!.id))!;
    expect(record.stages.find(({ key }) => key === lineBefore(assay, stage.key)!.key)!.trials).toHaveLength(
      amounts.length,
    );
    expect(stored!.summary).toEqual(summarize(record));
  }
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
