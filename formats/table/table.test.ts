import { describe, expect, test } from "@jest/globals";
import ExcelJS from "exceljs";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { checkRecord, evaluateRun } from "~/core/evaluate";
import { mustHold } from "~/core/result";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";
import { readRunRecord } from "../run-report";
import { fileOfRecord } from "../concluded";
import { guessed, targetsOf, unitIn } from "./columns";
import type { Mapping } from "./mapping";
import { dateOf, decimalSign, fittingUnit, ordersOf, readingOf, shifted } from "./numbers";
import type { TableSetting } from "./cells";
import { readBy, runsOfTable } from "./runs";
import { type Sheet, sheetOfCsv, sheetOfText, sheetOfWorkbook } from "./sheet";

const method = baseByPhthalateThenAcid;
const stageKey = "determine";
const targets = targetsOf(method, stageKey, defaultHouseRules);
const targetOf = (label: string) => targets.find((one) => inEnglish(one.label) === label)!.key;

const headings = [
  "Sample",
  "Date",
  "Trial",
  "Aliquot of acid, L",
  "Initial reading",
  "Final reading",
  "Remark",
];
const lines = [
  ["R-1", "3.11.2025", "1", "0.02500", "0.00", "20.00", "clear"],
  ["R-1", "3.11.2025", "2", "0.02500", "0.10", "20.12", ""],
  ["R-2", "14.11.2025", "1", "0.02500", "0.00", "22.40", ""],
];
const tabbed = (rows: readonly (readonly string[])[]) => rows.map((row) => row.join("\t")).join("\n");
const sheet = (rows: readonly (readonly string[])[] = lines): Sheet =>
  mustHold(sheetOfText(tabbed([headings, ...rows])));

const mapping = (change: Partial<Mapping> = {}): Mapping => ({
  ...{ methodId: method.id, stageKey, headings: true, decimal: "point", dates: "dmy", zeros: false },
  columns: guessed(headings, targets).map((target, i) =>
    target === null
      ? null
      : { target, unit: i === 3 ? "L" : targets.find(({ key }) => key === target)!.unit },
  ),
  fixed: Object.fromEntries(
    targets
      .filter(({ fills }) => fills?.stageKey === "standardize")
      .map(({ key }) => [key, key.endsWith(":given") ? "0.1000" : ""]),
  ),
  ...change,
});
const read = (from: Sheet, change: Partial<Mapping> = {}, setting: Partial<TableSetting> = {}) =>
  runsOfTable(from, {
    ...{ mapping: mapping(change), method, rules: defaultHouseRules },
    now: new Date("2026-11-28T09:00:00Z"),
    ...setting,
  });
const problemsOf = async (rows: readonly (readonly string[])[], change: Partial<Mapping> = {}) =>
  mustHold(await read(sheet(rows), change)).problems.map(({ row, column, message }) => [
    row,
    column,
    inEnglish(message),
  ]);

describe("a table becomes runs", () => {
  test("rows of a sample and day are its trials; results follow from them as from typed readings", async () => {
    const { runs, problems } = mustHold(await read(sheet()));
    expect(plain(problems)).toEqual([]);
    expect(runs.map(({ record, rows }) => [record.sample, record.status, rows])).toEqual([
      ["R-1", "finished", [2, 3]],
      ["R-2", "finished", [4]],
    ]);
    const [first, second] = runs.map(({ record }) => record);
    const readings = first!.stages[1]!.trials.map(({ observations }) => observations.map(({ text }) => text));
    // 0.02500 L is 25.00 mL, with its digits.
    expect(readings).toEqual([
      ["25.00", "0.00", "20.00"],
      ["25.00", "0.10", "20.12"],
    ]);
    // By hand: 0.1000 · (20.00 + 20.02) / 2 / 25.00
    expect(Number(evaluateRun(first!).result!.value)).toBeCloseTo(0.08004, 4);
    expect(first!.startedAt.slice(0, 7)).toBe("2025-11");
    expect(readBy(first!, "M. Finn").stages[1]!.trials[0]!.observations[0]).toMatchObject({
      source: "imported",
      person: "M. Finn",
    });
    for (const record of [first!, second!].map((one) => readBy(one, "M. Finn"))) {
      expect(checkRecord(record)).toEqual([]);
      expect(readRunRecord(JSON.parse(JSON.stringify(fileOfRecord(record))))).toHaveProperty("record");
    }
  });

  test("trials that disagree give no result, and it is told why", async () => {
    const apart = [lines[0]!, [...lines[1]!.slice(0, 5), "21.62", ""]];
    const [run] = mustHold(await read(sheet(apart))).runs;
    expect([run!.record.status, run!.listed.result]).toEqual(["open", null]);
    expect(run!.listed.results.some(({ main }) => main)).toBe(false);
    expect(inEnglish(run!.open!)).toMatch(/1 and 2 disagree/);
  });

  test("a rough trial stands beside the others and counts in nothing", async () => {
    const rows = [
      [...headings, "Rough?"],
      [...lines[0]!.slice(0, 5), "21.00", "", "x"],
      [...lines[1]!, ""],
      ["R-1", "3.11.2025", "3", ...lines[1]!.slice(3, 5), "20.14", "", "no"],
    ];
    const rough = { target: "rough", unit: "" };
    const columns = [...mapping().columns, rough];
    const [run] = mustHold(await read(mustHold(sheetOfText(tabbed(rows))), { columns })).runs;
    expect(run!.record.stages[1]!.trials.map(({ kind }) => kind)).toEqual(["rough", "fine", "fine"]);
    // By hand: 0.1000 · 20.03 / 25.00
    expect(Number(run!.listed.results.find(({ main }) => main)!.value)).toBeCloseTo(0.08012, 5);
    expect(guessed(["Rough?"], targets)).toEqual(["rough"]);
  });

  test("the same table gives the same runs, on another day too", async () => {
    const ids = async (setting: Partial<TableSetting>, change: Partial<Mapping> = {}, rows = lines) =>
      mustHold(await read(sheet(rows), change, setting)).runs.map(({ record }) => record.id);
    const first = await ids({});
    expect(await ids({ now: new Date("2027-02-01T09:00:00Z") })).toEqual(first);
    const other = lines.map((row, i) => (i === 2 ? [...row.slice(0, 5), "22.41", ""] : row));
    const changed = await ids({}, {}, other);
    expect(changed[0]).toBe(first[0]);
    expect(changed[1]).not.toBe(first[1]);
    // A day that is typed for the whole table is no part of what it says.
    // The same rows with their unit corrected are another run: what was wrong can be imported right.
    const { columns: said } = mapping();
    const inMilliliters = said.map((use, i) => (i === 3 && use ? { ...use, unit: "mL" } : use));
    const corrected = await ids({}, { columns: inMilliliters });
    expect(corrected).toHaveLength(2);
    expect(corrected.filter((id) => first.includes(id))).toEqual([]);
    const undated = (day: string) => {
      const { columns, fixed } = mapping();
      const without = columns.map((use) => (use?.target === "date" ? null : use));
      return ids({}, { columns: without, fixed: { ...fixed, date: day } });
    };
    expect(await undated("2026-11-27")).toEqual(await undated("2026-11-28"));
  });

  test("what is wrong is told by row and column, and what it collides with", async () => {
    const [a, b, c] = lines as [string[], string[], string[]];
    const with_ = (row: string[], at: number, text: string) => row.map((cell, i) => (i === at ? text : cell));
    expect(await problemsOf([a, with_(b, 2, "1"), c])).toEqual([[3, 2, "Trial 1 is in row 2 already"]]);
    expect(await problemsOf([with_(a, 5, "2o.00"), b, c])).toEqual([
      [2, 5, '"2o.00" is not a number, or its decimals stand behind another sign'],
    ]);
    expect(await problemsOf([with_(a, 1, "31.2.2025"), b, c])).toEqual([[2, 1, '"31.2.2025" is not a date']]);
    expect(await problemsOf([with_(a, 1, ""), b, c])).toEqual([[2, 1, "The date is missing"]]);
    expect(await problemsOf([with_(a, 1, "3.11.2031"), b, c])).toEqual([
      [2, 1, "3.11.2031 is in the future"],
    ]);
    expect(await problemsOf([["R-3", "3.11.2025", "1", "", "", "", "x"]])).toEqual([
      [2, null, "The row has no readings"],
    ]);
    // The final reading below the initial one, as when it is typed.
    expect(await problemsOf([a, with_(b, 5, "0.05"), c])).toEqual([
      [3, null, expect.stringMatching(/^The final reading 0.05 is not above the initial 0.10/)],
    ]);
    const many = Array.from({ length: 101 }, () => with_(with_(c, 2, ""), 0, "R-9"));
    expect((await problemsOf(many))[0]).toEqual([2, null, expect.stringMatching(/More than 100 rows/)]);
  });

  test("a mapping that cannot be meant is refused in words", async () => {
    const { columns } = mapping();
    const refusal = async (change: Partial<Mapping>) => {
      const outcome = await read(sheet(), change);
      return outcome.ok ? null : inEnglish(outcome.problem.message);
    };
    expect(await refusal({ columns: columns.map(() => null) })).toMatch(/which columns hold the readings/);
    expect(await refusal({ columns: [columns[4]!, columns[4]!] })).toMatch(/Two columns stand for the same/);
    // A normality is no molarity, and nothing is taken for what it is not.
    const inNormal = columns.map((use, i) => (i === 4 && use ? { ...use, unit: "N" } : use));
    expect(await refusal({ columns: inNormal })).toMatch(/is in "N", and mL is needed/);
    expect(await refusal({ columns: [{ target: "determine/x:y", unit: "" }] })).toMatch(/does not have/);
  });

  test("ten thousand rows are read with progress, and can be stopped in between", async () => {
    const rows = Array.from({ length: 10_000 }, (_, i) => [
      `S-${Math.floor(i / 4)}`,
      "2025-11-03",
      `${(i % 4) + 1}`,
      "0.02500",
      "0.00",
      `20.0${i % 4}`,
      "",
    ]);
    const seen: number[] = [];
    await expect(
      runsOfTable(
        sheet(rows),
        {
          mapping: mapping({ dates: "ymd" }),
          method,
          rules: defaultHouseRules,

          now: new Date("2026-11-28T09:00:00Z"),
        },
        (done, of) => {
          seen.push(done / of);
          if (done >= 100) throw new Error("stopped");
        },
      ),
    ).rejects.toThrow("stopped");
    expect(seen).toEqual([0, 20 / 2500, 40 / 2500, 60 / 2500, 80 / 2500, 100 / 2500]);
  });
});

describe("what a table says", () => {
  test("columns are known by the labels of their fields, and by usual words", () => {
    expect(guessed(headings, targets).map((key, i) => [headings[i], key])).toEqual([
      ["Sample", "sample"],
      ["Date", "date"],
      ["Trial", "trial"],
      ["Aliquot of acid, L", targetOf("Aliquot of acid")],
      ["Initial reading", targetOf("Initial reading")],
      ["Final reading", targetOf("Final reading")],
      ["Remark", null],
    ]);
    expect(["Mass (mg)", "Volume, mL", "Titer [L]", "Trial"].map(unitIn)).toEqual(["mg", "mL", "L", ""]);
  });

  test("units move the point, and nothing else; an equivalent is no mole", () => {
    expect([
      shifted("510.6", -3),
      shifted("0.02500", 3),
      shifted("-5", 2),
      shifted(".5", -1),
      shifted("7", 0),
    ]).toEqual(["0.5106", "25.00", "-500", "0.05", "7"]);
    expect([
      fittingUnit("ml", "mL"),
      fittingUnit("ug", "g"),
      fittingUnit("N", "mol/L"),
      fittingUnit("g", "mL"),
    ]).toEqual(["mL", "µg", null, null]);
  });

  test("commas and points, and zeros that a spreadsheet dropped", () => {
    const form = { decimal: "comma", from: "mL", to: "mL", decimals: null } as const;
    expect(readingOf("20,1", form)).toBe("20.1");
    expect(readingOf("20,1", { ...form, decimals: 2 })).toBe("20.10");
    expect(readingOf("20,125", { ...form, decimals: 2 })).toBe("20.125");
    // A point is no decimal sign there: 1.234 may be a thousand.
    expect(readingOf("1.234", form)).toBeNull();
    expect(readingOf("20,1", { ...form, decimal: "point" })).toBeNull();
    expect(["1.234,5", "20,1,2", "abc", "1e3", ""].map((cell) => readingOf(cell, form))).toEqual(
      Array(5).fill(null),
    );
    expect(
      decimalSign(
        [
          ["20,10", "x"],
          ["3", ""],
        ],
        false,
      ),
    ).toBe("comma");
    expect(decimalSign([["20,10"], ["3.5"]], false)).toBe("point");
    expect(decimalSign([["20,10"]], true)).toBe("point");
  });

  test("dates by their order; which one is asked where the table does not tell", () => {
    const day = (cell: string, order: "ymd" | "dmy" | "mdy") => {
      const date = dateOf(cell, order);
      return date && [date.getFullYear(), date.getMonth() + 1, date.getDate(), date.getHours()];
    };
    expect(day("3.11.2025", "dmy")).toEqual([2025, 11, 3, 12]);
    expect(day("3/11/25", "mdy")).toEqual([2025, 3, 11, 12]);
    expect(day("2025-11-03 09:30", "dmy")).toEqual([2025, 11, 3, 9]);
    expect([day("31.4.2025", "dmy"), day("2025-13-01", "ymd"), day("today", "ymd")]).toEqual([
      null,
      null,
      null,
    ]);
    expect(ordersOf(["3.11.2025", "4.12.2025"])).toEqual(["dmy", "mdy"]);
    expect(ordersOf(["3.11.2025", "14.12.2025"])).toEqual(["dmy"]);
    expect(ordersOf(["5.5.2025"])).toEqual(["dmy"]);
    expect(ordersOf(["2025-11-03"])).toEqual(["ymd"]);
    expect(ordersOf(["2025-11-03", "x"])).toEqual([]);
  });
});

describe("a table as it comes", () => {
  const latin = Uint8Array.from([..."Sample;Volumen\nSäure;20,10\n"].map((char) => char.charCodeAt(0)));

  test("an encoding that is not UTF-8 is asked for, and one that is marked is known", () => {
    const asked = sheetOfCsv(latin, null);
    expect(asked).toMatchObject({ ok: false, problem: { encoding: true } });
    expect(mustHold(sheetOfCsv(latin, "windows-1252")).cells[1]).toEqual(["Säure", "20,10"]);
    const wide = Buffer.from("\ufeffSample;V\nSäure;1\n", "utf16le");
    expect(mustHold(sheetOfCsv(wide, null)).cells).toEqual([
      ["Sample", "V"],
      ["Säure", "1"],
    ]);
  });

  test.each([
    ["", /empty/],
    [" \n\t\n", /empty/],
    ["a\0b", /not a table/],
    [Array.from({ length: 61 }, () => "x").join("\t"), /60 columns/],
    ["x\n".repeat(10_002), /10,000 rows/],
    [`a\t${"x".repeat(1001)}`, /row 1 is longer/],
  ])("what is no table of a class is refused in words (%#)", (text, words) => {
    const outcome = sheetOfText(text);
    expect(outcome.ok ? "" : inEnglish(outcome.problem.message)).toMatch(words);
  });

  test("a workbook: what is shown is taken, with the decimals of the format; a formula by its result", async () => {
    const book = new ExcelJS.Workbook();
    const page = book.addWorksheet("class");
    page.addRow(["Sample", "Date", "V, mL", "sum", "=not run"]);
    const row = page.addRow([
      "R-1",
      new Date("2025-11-03T00:00:00Z"),
      20.1,
      { formula: "1+1", result: 2 },
      "=1+1",
    ]);
    row.getCell(3).numFmt = "0.00";
    page.addRow([]);
    page.addRow([]);
    const odd = page.addRow(["R-2", "", 20.12, 0.998, 0.1 + 0.2]);
    // A format that hides digits, a percentage, and what a sum in binary leaves.
    odd.getCell(3).numFmt = "0.0";
    odd.getCell(4).numFmt = "0.0%";
    const bytes = new Uint8Array(await book.xlsx.writeBuffer());
    const { cells, lines } = mustHold(await sheetOfWorkbook(bytes));
    expect(cells).toEqual([
      ["Sample", "Date", "V, mL", "sum", "=not run"],
      ["R-1", "2025-11-03", "20.10", "2", "=1+1"],
      ["R-2", "", "20.12", "99.8", "0.3"],
    ]);
    // Rows are counted as the spreadsheet counts them.
    expect(lines).toEqual([1, 2, 5]);
    expect(mustHold(sheetOfText("a\tb\n\n1\t2\n")).lines).toEqual([1, 3]);
    const broken = await sheetOfWorkbook(bytes.slice(0, 300));
    expect(broken.ok ? "" : inEnglish(broken.problem.message)).toMatch(/damaged or cut off/);
  });
});
