import { describe, expect, test } from "@jest/globals";
import { v7 as newId } from "uuid";
import { methods } from "~/catalog/methods";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { applyChange, type Enter } from "../change";
import { changeContext, evaluateRun } from "../evaluate";
import { mustHold } from "../result";
import type { RunRecord } from "../run";
import { aliquot, begunRun, flask, runRecord } from "../testing/build-record";
import { clockMinutes, dataSheet, noteKey, type PaperRow, readPaper, type SheetStage } from ".";
import { plain } from "../testing/plain";

const now = "2026-11-25T15:00:00.000Z";
const context = changeContext({ now, person: "bench 1", newId: () => newId() });

const stageOf = (record: RunRecord, key: string): SheetStage =>
  dataSheet(record.method, record.houseRules, record).find((s) => s.key === key)!;

/** A row of a sheet with these texts in the order of its columns. */
const filled = (stage: SheetStage, key: string, at: PaperRow["at"], ...texts: string[]): PaperRow => {
  const row = stage.rows.find((r) => r.key === key)!;
  return {
    ...{ key, at, trial: { id: row.trialId ?? newId(), kind: row.kind } },
    cells: stage.columns.map((column, i) => ({ column, text: texts[i] ?? "", id: newId() })),
  };
};

const after = (record: RunRecord, request: Enter | null) =>
  mustHold(applyChange(record, request!, context))?.record ?? record;

describe("a data sheet", () => {
  test("has the fields of each stage in the order of the work, the rough trial first, and room to spare", () => {
    const [first, second] = dataSheet(baseByPhthalateThenAcid, defaultHouseRules, null);
    expect(plain(first!.columns.map(({ label }) => label))).toEqual([
      "Boat with solid",
      "Boat after transfer",
      "Initial reading",
      "Final reading",
    ]);
    // The strength of the base is presumed: no rough trial is needed there.
    expect(plain(first!.rows.map(({ name }) => name))).toEqual(["1", "2", "3", "4", "5"]);
    expect(plain(second!.columns[0]!.label)).toMatch(/^Aliquot/);
    expect(plain(second!.rows.map(({ name, kind }) => [name, kind])[0])).toEqual(["Rough", "rough"]);
  });

  test.each(methods.map((method) => [method.id, method] as const))(
    "%s has one, each column once",
    (_id, method) => {
      const stages = dataSheet(method, defaultHouseRules, null);
      expect(stages).toHaveLength(method.stages.length);
      for (const { columns, once, rows } of stages) {
        const keys = [...columns, ...once].map(({ key }) => key);
        expect(new Set(keys).size).toBe(keys.length);
        expect(rows.length > 0).toBe(columns.length > 0);
        expect(new Set(rows.map(({ key }) => key)).size).toBe(rows.length);
      }
    },
  );

  test("of a series offers the amounts of its flasks; of a run what is there already, and goes on with what was begun", () => {
    const phosphate = methods.find(({ id }) => id === "phosphate-as-molybdenum-blue")!;
    const standards = dataSheet(phosphate, defaultHouseRules, null).find(({ key }) => key === "standards")!;
    const { series } = phosphate.stages.find((s) => s.kind === "calibration")!;
    const offered = standards.rows.map((row) => [...row.offered.values()]);
    expect(offered).toEqual([...series.values.map((value) => [value]), [], []]);

    const whole = flask("2.6106", "2.1000", "0.00", "25.00");
    const begun = flask("2.6106", "2.1000", "0.00", "25.00");
    const half = { ...begun, number: 2, observations: begun.observations.slice(0, 2) };
    const sheet = stageOf(runRecord([whole, half], []), "standardize");
    expect(plain(sheet.rows[0])).toMatchObject({ name: "2", trialId: half.id });
    expect([...sheet.rows[0]!.written.values()]).toEqual(["2.6106", "2.1000"]);
    expect(plain(sheet.rows[1]!.name)).toBe("3");
  });
});

describe("what was written on paper", () => {
  test("comes to the same result as at the bench, with its own times, marked", () => {
    const typed = runRecord(
      [flask("2.6106", "2.1000", "0.00", "25.00")],
      [aliquot("25.00", "0.00", "22.50")],
    );
    let record = runRecord([], []);
    // Paper came before the run was begun.
    const times = ["2026-11-25T08:10:00.000Z", "2026-11-25T14:05:00.000Z"];
    const standardize = stageOf(record, "standardize");
    const first = readPaper(
      record,
      "standardize",
      [filled(standardize, "new 0", times[0], "2.6106", "2.1000", "0.00", "25.00")],
      context,
    );
    expect([first.count, first.notes.size]).toEqual([4, 0]);
    record = after(record, first.request);
    const determine = stageOf(record, "determine");
    const second = readPaper(
      record,
      "determine",
      [filled(determine, "new 0", times[1], "25.00", "0.00", "22.50")],
      context,
    );
    record = after(record, second.request);
    const [a, b] = [evaluateRun(typed), evaluateRun(record)];
    expect(b.result?.text).toEqual(a.result?.text);
    expect(b.stages.map((s) => s.shown?.text)).toEqual(a.stages.map((s) => s.shown?.text));
    const read = record.stages.flatMap((s) => s.trials.flatMap((t) => t.observations));
    expect(new Set(read.map(({ source }) => source))).toEqual(new Set(["paper"]));
    expect([...new Set(read.map(({ at }) => at))]).toEqual(times);
  });

  test("is checked place by place, by what the run itself checks, and nothing is entered by halves", () => {
    const record = runRecord([], []);
    const stage = stageOf(record, "standardize");
    const [boat, , , final] = stage.columns;
    const read = readPaper(
      record,
      "standardize",
      [
        filled(stage, "new 0", undefined, "2.6106", "2.1000", "0.00", "25.00"),
        filled(stage, "new 1", null, "26106 g", "2.1000", "25.00", "1.00"),
        filled(stage, "new 2", "2026-11-25T16:00:00.000Z", "2.6106"),
        filled(stage, "new 3", "2024-11-25T09:00:00.000Z", "2.6106"),
        filled(stage, "new 4", "2026-11-25T15:03:00.000Z", ""),
      ],
      context,
    );
    const noteAt = (row: string, column: string) => read.notes.get(noteKey(row, column));
    expect(plain(noteAt("new 0", "time")?.message)).toMatch(/such as 9:40/);
    expect(noteAt("new 1", boat!.key)?.grave).toBe(true);
    expect(noteAt("new 1", final!.key)?.grave).toBe(true);
    expect(plain(noteAt("new 2", "time")?.message)).toMatch(/in the future/);
    expect(plain(noteAt("new 3", "time")?.message)).toMatch(/more than a year/);
    expect([...read.notes.keys()].filter((key) => key.startsWith("new 4"))).toEqual([]);
    expect(read.request).toBeNull();
  });

  test("a time that is wrong is refused by the change itself, whoever sends it", () => {
    const record = runRecord([], []);
    const trial = { id: newId(), kind: "fine" as const };
    const readings = [{ id: newId(), symbol: "m", kind: "mass.before" as const, text: "2.6106", person: "" }];
    const at = (time: string) =>
      applyChange(
        record,
        { intent: "enter", stageKey: "standardize", source: "paper", rows: [{ trial, readings, at: time }] },
        context,
      );
    expect(plain(at("2026-11-25T15:06:00.000Z"))).toMatchObject({
      ok: false,
      problem: { status: "refused" },
    });
    expect(plain(at("2025-11-20T15:00:00.000Z"))).toMatchObject({
      ok: false,
      problem: { status: "refused" },
    });
    expect(at("2026-11-25T15:04:00.000Z").ok).toBe(true);
  });

  test("a flask of a series keeps its row when another device makes the one before it", () => {
    const record = begunRun(methods.find(({ id }) => id === "phosphate-as-molybdenum-blue")!);
    const before = stageOf(record, "standards");
    const [first, second] = before.rows;
    const made = readPaper(record, "standards", [filled(before, first!.key, null, "0.00", "0.001")], context);
    const rows = stageOf(after(record, made.request), "standards").rows;
    expect(rows.map(({ key }) => key)).not.toContain(first!.key);
    const still = rows.find(({ key }) => key === second!.key)!;
    expect([...still.offered.values()]).toEqual([...second!.offered.values()]);
  });

  test("a trial that was entered and taken back is on the sheet no more", () => {
    const record = runRecord([], []);
    const stage = stageOf(record, "standardize");
    const { request } = readPaper(record, "standardize", [filled(stage, "new 0", null, "2.6106")], context);
    const entered = mustHold(applyChange(record, request!, context))!;
    expect(stageOf(entered.record, "standardize").rows[0]!.trialId).not.toBeNull();
    const last = { id: newId(), inverse: entered.inverse };
    const undone = applyChange(entered.record, { intent: "undo", eventId: last.id }, { ...context, last });
    const rows = stageOf(mustHold(undone)!.record, "standardize").rows;
    expect(rows).toEqual(stage.rows);
  });

  test("of another day nothing is entered without a time: it would count as read now", () => {
    const record = runRecord([], []);
    const row = filled(stageOf(record, "standardize"), "new 0", null, "2.6106");
    const read = readPaper(record, "standardize", [{ ...row, timeNeeded: true }], context);
    expect(plain(read.notes.get(noteKey("new 0", "time")))).toMatchObject({ grave: true });
    expect(read.request).toBeNull();
    expect(readPaper(record, "standardize", [row], context).request).not.toBeNull();
  });

  test("what looks like a slip is told beside its place, and kept", () => {
    const record = begunRun(methods.find(({ id }) => id === "phosphate-as-molybdenum-blue")!);
    const stage = stageOf(record, "standards");
    const row = filled(stage, "amount 0.00", null, "0.00", "-0.012", "0.001");
    const read = readPaper(record, "standards", [row], context);
    expect(plain([...read.notes])).toEqual([
      [
        noteKey("amount 0.00", stage.columns[1]!.key),
        { grave: false, message: expect.stringMatching(/below zero/) },
      ],
    ]);
    expect(read.request?.rows[0]?.readings.map(({ text }) => text)).toEqual(["0.00", "-0.012", "0.001"]);
  });
});

test.each([
  ["9:40", 580],
  ["09.40", 580],
  [" 14:05 ", 845],
  ["2:05 pm", 845],
  ["12:00 am", 0],
  ["12:30 PM", 750],
  ["24:00", null],
  ["9:60", null],
  ["13:00 pm", null],
  ["940", null],
  ["soon", null],
] as const)("a time as people write it: %s", (text, minutes) => {
  expect(clockMinutes(text)).toBe(minutes);
});
