import "~/core/stages/engines";
import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { checkRecord } from "~/core/evaluate";
import { mustHold } from "~/core/result";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";
import { guessed, tableStages, targetsOf, unitIn } from "./columns";
import type { Mapping } from "./mapping";
import { readBy, runsOfTable, togetherOf } from "./runs";
import { sheetOfText } from "./sheet";

const methodOf = (id: string) => methods.find((one) => one.id === id)!;

/** Reads a table of flasks; what the method presumes is confirmed, as the screen shows it. */
async function read(
  id: string,
  lines: readonly string[],
  fixed: Readonly<Record<string, string>> = {},
  parts = 1,
) {
  const method = methodOf(id);
  const targets = targetsOf(method, "unknown", defaultHouseRules);
  const sheet = mustHold(sheetOfText(lines.join("\n")));
  const [headings = []] = sheet.cells;
  const columns = guessed(headings, targets).map((key, i) => {
    const target = targets.find((one) => one.key === key);
    return target ? { target: target.key, unit: unitIn(headings[i]!) || target.unit } : null;
  });
  const usual = Object.fromEntries(targets.flatMap(({ key, usual }) => (usual ? [[key, usual]] : [])));
  const mapping: Mapping = {
    ...{ methodId: id, stageKey: "unknown", headings: true, decimal: "point", dates: "dmy", zeros: false },
    ...{ columns, fixed: { "wavelength/λ:given": "510", ...usual, ...fixed } },
  };
  const now = new Date("2026-11-28T09:00:00Z");
  const setting = { method, mapping, rules: defaultHouseRules, now };
  const read = Array.from({ length: parts }, (_, index) =>
    runsOfTable(sheet, setting, undefined, { index, of: parts }),
  );
  return togetherOf((await Promise.all(read)).map((part) => mustHold(part)));
}

const day = "3.11.2025";
const head = "Sample;Date;Stock taken, mL;Absorbance;Abs 2";
const blank = `Blank;${day};;0.001;-0.001`;
const standards = [0, 2, 4, 6, 8, 10].map((v) => `Std;${day};${v.toFixed(2)};${(0.08 * v).toFixed(3)};`);
const iron = (...rows: readonly string[]) => read("iron-with-phenanthroline", [head, ...rows]);
const problemsOf = ({ problems }: Awaited<ReturnType<typeof read>>) =>
  problems.map(({ row, message }) => `${row}: ${inEnglish(message)}`);

describe("a table of flasks that are read off a line", () => {
  test("samples of a day are runs, each with the standards and blanks of that day; several readings stand in one row", async () => {
    const { runs, problems } = await iron(
      blank,
      ...standards,
      `W-1;${day};;0.360;0.364`,
      `W-1;${day};;0.366;`,
      `W-2;${day};;0.200;`,
    );
    expect(plain(problems)).toEqual([]);
    const found = runs.map(({ record, rows, open, listed }) => [
      record.sample,
      rows,
      record.status,
      open,
      Number(listed.results.find(({ main }) => main)?.value),
    ]);
    // By hand: the line is 0.08 per mL of a stock of 20 mg/L, and 25 mL were taken: c = 20 · (A / 0.08) / 25.
    expect(found).toEqual([
      ["W-1", [9, 10], "finished", null, expect.closeTo((20 * 0.364) / 2, 3)],
      ["W-2", [11], "finished", null, expect.closeTo(2, 3)],
    ]);
    expect(runs.map(({ flasks }) => flasks)).toEqual([
      { standards: 6, blanks: 1 },
      { standards: 6, blanks: 1 },
    ]);
    for (const { record } of runs) {
      expect(checkRecord(readBy(record, "M. Finn"))).toEqual([]);
      const [, line] = record.stages;
      expect(line!.trials.map((one) => one.observations[0]!.text)).toEqual([
        "0.00",
        "2.00",
        "4.00",
        "6.00",
        "8.00",
        "10.00",
      ]);
      expect(line!.observations.filter(({ symbol }) => symbol === "A_0").map(({ text }) => text)).toEqual([
        "0.001",
        "-0.001",
      ]);
    }
    const readings = runs[0]!.record.stages[2]!.trials.map(({ observations }) =>
      observations.flatMap(({ symbol, text }) => (symbol === "A" ? [text] : [])),
    );
    expect(readings).toEqual([["0.360", "0.364"], ["0.366"]]);
    // Twice imported is once there; another absorbance of a standard is another run.
    const ids = async (...rows: readonly string[]) =>
      (await iron(...rows)).runs.map(({ record }) => record.id);
    const sample = `W-2;${day};;0.200;`;
    expect(await ids(blank, ...standards, sample)).toEqual([runs[1]!.record.id]);
    expect(await ids(blank, ...standards.slice(0, -1), `Std;${day};10.00;0.801;`, sample)).not.toEqual([
      runs[1]!.record.id,
    ]);
  });

  test("standards of each person and day go with the samples of the same", async () => {
    const of = (who: string, slope: number, absorbance: string) => [
      ...[0, 5, 10].map((v) => `Std;${day};${who};${v.toFixed(2)};${(slope * v).toFixed(3)}`),
      `W-1;${day};${who};;${absorbance}`,
    ];
    const { runs, problems } = await read("iron-with-phenanthroline", [
      "Sample;Date;Student;Stock taken, mL;Absorbance",
      ...of("bench 1", 0.08, "0.400"),
      ...of("bench 2", 0.1, "0.400"),
    ]);
    expect(plain(problems)).toEqual([]);
    expect(runs.map(({ listed }) => Number(listed.results.find(({ main }) => main)?.value))).toEqual([
      expect.closeTo(4, 3),
      expect.closeTo(3.2, 3),
    ]);
    // Who has a blank of their own still gets the standards that name nobody.
    const shared = await read("iron-with-phenanthroline", [
      "Sample;Date;Student;Stock taken, mL;Absorbance",
      ...[0, 5, 10].map((v) => `Std;${day};;${v.toFixed(2)};${(0.08 * v).toFixed(3)}`),
      `Blank;${day};bench 1;;0.001`,
      `W-1;${day};bench 1;;0.400`,
    ]);
    expect(shared.runs.map(({ flasks, open }) => [flasks, open])).toEqual([
      [{ standards: 3, blanks: 1 }, null],
    ]);
    // Standards of somebody without a sample would be lost in silence.
    expect(
      problemsOf(
        await read("iron-with-phenanthroline", [
          "Sample;Date;Stock taken, mL;Absorbance",
          ...standards.map((row) => row.slice(0, -1)),
        ]),
      ),
    ).toEqual(["2: There is no sample of this day for this standard or blank"]);
  });

  test("a day without standards, a standard without its amount, a flask without its absorbance: reported once, by row", async () => {
    expect(problemsOf(await iron(...standards, "W-1;4.11.2025;;0.360;"))).toEqual([
      "2: There is no sample of this day for this standard or blank",
      "8: There are no standards of this day for this sample",
    ]);
    expect(
      problemsOf(await iron(...standards, `Std;${day};;0.400;`, `W-1;${day};;0.360;`, `W-2;${day};;0.200;`)),
    ).toEqual(["8: Stock taken (standards) is missing"]);
    expect(problemsOf(await iron(...standards, `W-1;${day};;;`))).toEqual(["8: Absorbance is missing"]);
    expect(problemsOf(await iron(`${standards[0]}x`, ...standards.slice(1), `W-1;${day};;0.360;`))).toEqual([
      expect.stringMatching(/^2: "x" is not a number/),
    ]);
  });

  test("read in parts, a table gives what it gives whole, and a fault of several parts once", async () => {
    const samples = [1, 2, 3, 4, 5, 6, 7].map((i) => `W-${i};${day};;0.${i}00;`);
    const inParts = (parts: number, rows: readonly string[]) =>
      read("iron-with-phenanthroline", [head, blank, ...standards, ...rows], {}, parts);
    const whole = await inParts(1, samples);
    expect(whole.runs.map(({ record }) => record.sample)).toEqual([1, 2, 3, 4, 5, 6, 7].map((i) => `W-${i}`));
    for (const parts of [2, 3, 9]) expect(await inParts(parts, samples)).toEqual(whole);
    // A standard stands in the runs of all parts; the second sample in one of them.
    const wrong = [`Std;${day};x;0.1;`, samples[0]!, `W-2;${day};;?;`, ...samples.slice(2)];
    const faults = ['9: "x" is not a number, or its decimals stand behind another sign'];
    const ofTwo = problemsOf(await inParts(2, wrong));
    expect(ofTwo).toEqual(problemsOf(await inParts(1, wrong)));
    expect(ofTwo).toEqual([...faults, expect.stringMatching(/^11: "\?" is not a number/)]);
  });

  test("a sample whose name only begins like a blank or a standard is a sample", async () => {
    const names = ["Blank road creek", "Stone pool", "Standing water", "Calm bay"];
    const named = await iron(...standards, ...names.map((name) => `${name};${day};;0.200;`));
    expect(plain(named.problems)).toEqual([]);
    expect(named.runs.map(({ record }) => record.sample)).toEqual(names);
    const others = ["Reagent blank", "BL-2", "zero", "Std. 3", "standard A", "Cal 0.5", "Wk 12"];
    const [run] = (
      await iron(
        ...standards,
        ...others.map((name, i) => `${name};${day};${i > 2 ? i : ""};0.2;`),
        `W;${day};;0.2;`,
      )
    ).runs;
    // What holds an amount of stock is a standard, whatever it is called.
    expect(run!.flasks).toEqual({ standards: 10, blanks: 3 });
  });

  test("nothing is relied on that is neither in the table nor beside it", async () => {
    const without = (key: string) =>
      read("iron-with-phenanthroline", [head, ...standards, `W-1;${day};;0.360;`], { [key]: "" });
    const [run] = (await without("standards/V_f:volume.taken")).runs;
    expect([run!.record.status, run!.listed.result]).toEqual(["open", null]);
    expect(inEnglish(run!.open!)).toMatch(/^Made up to: 50\.00 mL is presumed/);
    // No result rests on the wavelength.
    expect((await without("wavelength/λ:given")).runs[0]!.record.status).toBe("finished");
  });

  test("every stage that is read off a line can be filled from a table", () => {
    const stages = methods.flatMap((method) =>
      tableStages(method)
        .filter(({ kind }) => kind === "unknown")
        .map(({ key }) => targetsOf(method, key, defaultHouseRules)),
    );
    expect(stages.length).toBeGreaterThan(4);
    for (const targets of stages) {
      const labels = targets.map(({ label }) => inEnglish(label));
      expect(new Set(labels).size).toBe(labels.length);
      expect(targets.some(({ fills, standard, many }) => fills && standard && many)).toBe(true);
      expect(targets.some(({ fills, standard }) => !fills && standard)).toBe(true);
    }
  });
});
