import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { randomUUID } from "node:crypto";
import { eq, getTableName, ne } from "drizzle-orm";
import { getTableConfig } from "drizzle-orm/pg-core";
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
import { insertMany } from "../database/insert-many";
import { mustStandUnderRuns, withoutLookups } from "../database/references";
import { observation, run, runResult, stage, trial } from "../database/schema";
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

test("keys that are not looked up one by one are counted afterwards, and looked up again from then on", async () => {
  // All keys that these tables name are among those that are counted: a new one needs its count.
  const names = [stage, trial, observation, runResult].flatMap((table) =>
    getTableConfig(table).foreignKeys.map((key) => {
      const { columns, foreignTable } = key.reference();
      return `${getTableName(table)}.${columns.map(({ name }) => name).join()} > ${getTableName(foreignTable)}`;
    }),
  );
  expect(names.sort()).toEqual([
    "observation.assignment_id > assignment",
    "observation.stage_id > stage",
    "observation.trial_id > trial",
    "run_result.run_id > run",
    "stage.run_id > run",
    "trial.stage_id > stage",
  ]);
  const sheet = await asked(rowsOf(6, () => "23,00"));
  expect(mustHold(await importTable(open.db, sheet, now, quiet)).runs).toBe(2);
  const [stored] = await open.db.select().from(run).where(eq(run.methodId, method.id)).limit(1);
  const runId = stored!.id;
  const record = (await loadRunRecord(open.db, runId))!;
  const { id: _, ...reading } = (
    await open.db.select().from(observation).where(eq(observation.stageId, record.stages[1]!.id))
  )[0]!;
  const stray = (names: Partial<typeof reading>) => ({
    ...reading,
    seq: undefined,
    ...names,
    id: randomUUID(),
  });
  const readings = record.stages.flatMap((s) => [
    ...s.observations,
    ...s.trials.flatMap((t) => t.observations),
  ]);
  const written = {
    stages: record.stages.length,
    trials: record.stages.flatMap(({ trials }) => trials).length,
    readings: readings.length,
    results: (await open.db.select().from(runResult).where(eq(runResult.runId, runId))).length,
  };
  await mustStandUnderRuns(open.db, [runId], written);
  // A trial that is nowhere, one of another stage, a bottle that is nowhere.
  const other = (await open.db.select().from(trial).where(ne(trial.stageId, reading.stageId)))[0]!;
  for (const names of [{ trialId: randomUUID() }, { trialId: other.id }, { assignmentId: randomUUID() }]) {
    const putting = open.db.transaction(async (tx) => {
      await withoutLookups(tx, () => insertMany(tx, observation, [stray(names)]));
      await mustStandUnderRuns(tx, [runId], { ...written, readings: written.readings + 1 });
    });
    await expect(putting).rejects.toThrow(`${written.readings} of ${written.readings + 1} readings stand`);
  }
  // In a transaction that has left them out and in one that has failed, the next row is looked up as ever.
  const after = open.db.transaction(async (tx) => {
    await withoutLookups(tx, () => Promise.resolve());
    await insertMany(tx, observation, [stray({ trialId: randomUUID() })]);
  });
  await expect(after).rejects.toMatchObject({ cause: { message: expect.stringContaining("foreign key") } });
  await expect(insertMany(open.db, observation, [stray({ trialId: randomUUID() })])).rejects.toMatchObject({
    cause: { message: expect.stringContaining("foreign key") },
  });
});
