import { describe, expect, test } from "@jest/globals";
import { parse } from "csv-parse/sync";
import { diproticAcidByCurve } from "~/catalog/methods/acid-base/diprotic-acid-by-curve";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { evaluateRun } from "~/core/evaluate";
import { inUnit } from "~/core/quantity";
import { mustHold } from "~/core/result";
import { simulateRun } from "~/core/simulate";
import { isOnce, membersOf } from "~/core/stages";
import { csvText } from "../csv";
import { linesCsv } from "../lines/csv";
import { linesJcamp } from "../lines/jcamp";
import { linesOf } from "../lines/line";
import { busyRecord, wildReason } from "../testing/busy-record";
import { exportBy, exportName } from "./";
import { offeredExports } from "./offered";
import { readingsCsv } from "./readings";
import { trialsCsv } from "./trials";

/* Tables are read back by a library other than the one that wrote them. */

const record = busyRecord();
const curves = mustHold(
  simulateRun({
    method: diproticAcidByCurve,
    houseRules: defaultHouseRules,
    truth: { results: {} },
    seed: 3,
  }),
).record;
const rowsOf = (text: string) =>
  parse<Record<string, string>>(text, { columns: true, relax_column_count: false });

/** As it stands in a cell: what a spreadsheet would carry out has an apostrophe before it. */
const harmless = `'${wildReason}`;

describe("readings as CSV", () => {
  const rows = rowsOf(readingsCsv(record));
  const all = record.stages.flatMap((s) => [...s.observations, ...s.trials.flatMap((t) => t.observations)]);

  test("hold every reading as it was typed, with who and when, in the order of the record", () => {
    expect(
      rows.map((row) => [row.id, row["as typed"], row.value, row.unit, row.person, row.at, row.source]),
    ).toEqual(all.map((o) => [o.id, o.text, o.value, o.unit, o.person, o.at, o.source]));
    expect(new Set(rows.map(({ stage }) => stage))).toEqual(
      new Set(["Standardize the base", "Titrate the acid"]),
    );
    expect(rows.every(({ what }) => what !== "")).toBe(true);
  });

  test("tell what was corrected, by what and why, and what stands in a trial that was struck out", () => {
    const after = rows.find(({ "as typed": text }) => text === "25.98");
    expect(after).toMatchObject({
      state: "stands",
      reason: "digits changed places",
      person: "M. Finn",
      what: "Final reading",
    });
    expect(rows.find(({ id }) => id === after?.corrects)).toMatchObject({
      state: "corrected",
      "as typed": "25.89",
    });
    const struck = rows.filter(({ state }) => state === "in a trial struck out");
    expect(struck.map(({ letter }) => letter)).toEqual(["V_a", "V", "V"]);
    expect(struck[0]?.["why the trial was struck out"]).toBe(harmless);
  });

  test("begin no cell with what a spreadsheet carries out", () => {
    const cells = [...rowsOf(readingsCsv(record)), ...rowsOf(trialsCsv(record))].flatMap((row) =>
      Object.values(row),
    );
    expect(cells.filter((cell) => /^[=@\t\r]|^[+-](?![\d.])/.test(cell))).toEqual([]);
  });
});

test("a sign begins a number or is marked as text, and nothing between", () => {
  const cells = ["-1.5", "+2", "-.5e-3", "-", "-1+1", "+1|cmd", "-2*A1", "@SUM(A1)", "=1", "\n=1", "a=1"];
  const read = parse<Record<string, string>>(
    csvText(
      ["cell"],
      cells.map((cell) => [cell]),
    ),
    { columns: true },
  );
  expect(read.map(({ cell }) => cell)).toEqual([
    ...["-1.5", "+2", "-.5e-3", "'-", "'-1+1", "'+1|cmd", "'-2*A1", "'@SUM(A1)", "'=1", "'\n=1", "a=1"],
  ]);
});

describe("trials as CSV", () => {
  const rows = rowsOf(trialsCsv(record));

  test("hold what each trial came to, in the unit that its column says", () => {
    const { stages } = evaluateRun(record);
    for (const stage of stages) {
      if (isOnce(stage)) continue;
      const own = rows.filter((row) => row.stage === stage.definition.title);
      expect(own).toHaveLength(stage.trials.length);
      const members = membersOf(stage).map(({ id }) => id);
      stage.trials.forEach((trial, i) => {
        const row = own[i]!;
        const { symbol, unit } = stage.definition.result;
        const column = `${symbol}, ${unit}`;
        expect(row["in the result"]).toBe(members.includes(trial.id) ? "yes" : "no");
        if (trial.result) expect(Number(row[column])).toBeCloseTo(inUnit(trial.result, unit), 12);
        else expect(row[column]).toBe("");
        if (trial.titerMl !== null) expect(Number(row["V, mL"])).toBeCloseTo(trial.titerMl, 10);
      });
    }
  });

  test("tell which trial was struck out and which is not complete", () => {
    const struck = rows.filter((row) => row["why it was struck out"] !== "");
    expect(struck.map((row) => [row.counts, row["why it was struck out"]])).toEqual([["no", harmless]]);
    expect(rows.at(-1)).toMatchObject({ counts: "no", "V, mL": "" });
  });
});

test("curves go out as they were read: by the volume added, the digits of the meter as typed", () => {
  const rows = rowsOf(linesCsv(linesOf(curves)));
  const trials = curves.stages.flatMap((stage) => stage.trials);
  const points = trials.flatMap(({ observations }) => {
    const start = observations.find(({ kind }) => kind === "burette.initial")!.text;
    return observations.flatMap(({ point, text }) =>
      point ? [[(Number(point.burette) - Number(start)).toFixed(2), text]] : [],
    );
  });
  expect(points.length).toBeGreaterThan(40);
  expect(rows.map(({ x, y }) => [x, y])).toEqual(points);
  expect(new Set(rows.map((row) => [row.line, row.what, row.x_unit, row.y_name].join()))).toEqual(
    new Set(["curve 1,curve,mL,pH", "curve 2,curve,mL,pH"]),
  );
  const jcamp = linesJcamp("Two curves", linesOf(curves));
  expect(jcamp.match(/^##NPOINTS=\d+/gm)!.reduce((sum, line) => sum + Number(line.slice(10)), 0)).toBe(
    points.length,
  );
  for (const [x, y] of points) expect(jcamp).toContain(`\n${x}, ${y}\r`);
});

test("every format that is offered is written, under a name that every system takes", async () => {
  for (const { key, ending } of offeredExports) {
    const found = exportBy(key)!;
    const body = await found.write("ofLines" in found ? curves : record, { sign: (file) => file });
    expect(body.length).toBeGreaterThan(300);
    expect(exportName("Säure: “Nr. 3” / pool?", found)).toBe(`Saure-Nr-3-pool-${key}.${ending}`);
  }
  expect(exportName("水", exportBy("trials")!)).toBe("run-trials.csv");
  expect(exportBy("nonsense")).toBeNull();
});
