import { decimalsOf, written } from "~/core/record";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { readReadingsTable } from "./readings-table";
import { lineCsv } from "./lines/csv";
import { lineJcamp, linesJcamp } from "./lines/jcamp";
import { lineOfTrace } from "./lines/line";
import { readTraceFile } from "./trace-file";

describe("a class's readings as a table", () => {
  test("with a heading, decimal commas and tabs: readers by name, empty cells passed over", () => {
    const table = readReadingsTable(
      "mL\tBench 1\tBench 2\nblank\t0,000\t\n2,00\t0,141\t0,139\n4,00 mL\t\t0,283\n",
      "mL",
    );
    expect(table).toEqual({
      empty: 2,
      problems: [],
      rows: [
        { amount: "blank", readings: [{ person: "Bench 1", text: "0.000", kind: "absorbance" }] },
        {
          amount: "2.00",
          readings: [
            { person: "Bench 1", text: "0.141", kind: "absorbance" },
            { person: "Bench 2", text: "0.139", kind: "absorbance" },
          ],
        },
        { amount: "4.00", readings: [{ person: "Bench 2", text: "0.283", kind: "absorbance" }] },
      ],
    });
  });

  test.each([
    ["commas between columns", "2.00,0.141,0.139\n4.00,0.283,0.281"],
    ["semicolons, decimal commas", "2,00;0,141;0,139\n4,00;0,283;0,281"],
    ["blanks, decimal commas", "2,00 0,141 0,139\n4,00 0,283 0,281"],
  ])("parted by %s, without a heading", (_how, text) => {
    const { rows, problems } = readReadingsTable(text, "mL");
    expect(problems).toEqual([]);
    expect(rows.map((r) => [r.amount, ...r.readings.map((x) => x.text)])).toEqual([
      ["2.00", "0.141", "0.139"],
      ["4.00", "0.283", "0.281"],
    ]);
    expect(rows[0]?.readings[1]?.person).toBe("Reader 2");
  });

  test("a percent sign makes it a transmittance", () => {
    expect(readReadingsTable("2;72,4 %", "mL").rows[0]?.readings[0]).toEqual({
      person: "Reader 1",
      text: "72.4",
      kind: "transmittance",
    });
  });

  test("what is wrong is told by its cell", () => {
    const { problems } = readReadingsTable("mL;A;B\n2,00;0,1x4;0,139\n;0,2;0,3\n4 µL;0,28;52\n", "mL");
    expect(problems).toEqual([
      { row: 2, column: 2, message: '"0.1x4" is no number' },
      { row: 3, column: 1, message: "The amount is missing" },
      { row: 4, column: 1, message: "It is in µL; amounts are in mL here" },
      { row: 4, column: 3, message: "52 is no absorbance: is it a transmittance in %?" },
    ]);
    expect(readReadingsTable("\n\n", "mL").problems[0]?.message).toMatch(/empty/);
    expect(readReadingsTable("2\n4\n", "mL").problems[0]?.message).toMatch(/one column/);
  });
});

test("Whatever a class read comes out of its table as it was written, however the table is parted", () => {
  const reading = fc.integer({ min: 0, max: 1500 }).map((n) => (n / 1000).toFixed(3));
  const rows = fc.array(fc.array(reading, { minLength: 3, maxLength: 3 }), { minLength: 2, maxLength: 8 });
  const styles = fc.constantFrom(
    { delimiter: "\t", comma: true },
    { delimiter: "\t", comma: false },
    { delimiter: ";", comma: true },
    { delimiter: ",", comma: false },
  );
  fc.assert(
    fc.property(rows, styles, (texts, { delimiter, comma }) => {
      const written = (text: string) => (comma ? text.replace(".", ",") : text);
      const lines = texts.map((row, i) => [`${2 * i}.00`, ...row].map(written).join(delimiter));
      const heading = ["mL", "Bench 1", "Bench 2", "Bench 3"].join(delimiter);
      for (const table of [lines, [heading, ...lines]]) {
        const { rows: found, problems, empty } = readReadingsTable(table.join("\n"), "mL");
        expect([problems, empty]).toEqual([[], 0]);
        expect(found.map((r) => r.readings.map((x) => x.text))).toEqual(texts);
        expect(found.map((r) => Number(r.amount))).toEqual(texts.map((_, i) => 2 * i));
      }
    }),
  );
});

const jcamp = (data: string, points = 5, end = "##END=\n") => `##TITLE=blue complex
##JCAMP-DX=4.24
##XUNITS=NANOMETERS
##YUNITS=ABSORBANCE
##FIRSTX=400
##LASTX=404
##NPOINTS=${points}
##XFACTOR=1
##YFACTOR=0.001
##XYDATA=(X++(Y..Y))
${data}${end}`;

describe("a spectrum or a course from a file", () => {
  test("JCAMP-DX: title, factors and points", () => {
    expect(readTraceFile(jcamp("400 100 120 130\n403 150 140\n"), "x.jdx", "nm")).toEqual({
      traces: [
        {
          ...{
            name: "blue complex",
            x: [400, 401, 402, 403, 404],
            absorbance: [0.1, 0.12, 0.13, 0.15, 0.14],
          },
          decimals: { x: 0, absorbance: 3 },
        },
      ],
    });
  });

  test.each([
    ["cut off", jcamp("400 100 120 130\n", 5, ""), 12, /ends without ##END/],
    ["points missing", jcamp("400 100 120 130\n"), 7, /5 points are announced, 3 are there/],
    [
      "another unit",
      jcamp("400 1 2 3 4 5\n").replace("NANOMETERS", "1/CM"),
      3,
      /in 1\/CM; nanometers are needed/,
    ],
    ["no points at all", "##TITLE=x\n##END=\n", 0, /no ##XYDATA/],
  ])("JCAMP-DX with a fault (%s) is refused, with the line", (_what, text, line, message) => {
    expect(readTraceFile(text, "x.jdx", "nm")).toEqual({
      problems: [{ line, message: expect.stringMatching(message) }],
    });
  });

  test("columns: several spectra side by side, scanned from the red end, come out rising and named", () => {
    const decimals = { x: 0, absorbance: 1 };
    const text = "nm;dilute;strong\n402;0,3;0,6\n401;0,2;0,4\n400;0,1;0,2\n";
    expect(readTraceFile(text, "scan.csv", "nm")).toEqual({
      traces: [
        { name: "dilute", x: [400, 401, 402], absorbance: [0.1, 0.2, 0.3], decimals },
        { name: "strong", x: [400, 401, 402], absorbance: [0.2, 0.4, 0.6], decimals },
      ],
    });
  });

  test("times that go back, text in numbers and missing values are told by line", () => {
    const back = readTraceFile("t,A\n0,0.9\n1,0.8\n1,0.7\n", "run.csv", "s");
    expect(back).toEqual({
      problems: [{ line: 4, message: "1 s after 1 s: the time goes back or stands still" }],
    });
    const wrong = readTraceFile("t,A\n0,0.9\n1,o.8\n2,\n", "run.csv", "s");
    expect(wrong).toEqual({
      problems: [
        { line: 3, message: '"o.8" is no number' },
        { line: 4, message: "The absorbance is missing" },
      ],
    });
    expect(readTraceFile("  \n", "run.csv", "s")).toEqual({
      problems: [{ line: 0, message: "The file is empty" }],
    });
  });

  test.each([
    ["the same digits in each", "t,A\n0.0,0.900\n0.5,0.850\n1.0,0.803\n"],
    ["as many as each has", "t;A\n0;0,9\n0,25;0,8500\n10,5;1,20e-3\n"],
  ])("of %s goes out with the digits with which it came, and comes back the same", (_what, text) => {
    const read = readTraceFile(text, "run.csv", "s");
    if (!("traces" in read)) throw new Error("not read");
    const [trace] = read.traces;
    const line = lineOfTrace({
      ...{ ...trace!, id: "t", trialId: null, xUnit: "s", source: "imported", person: "MB", removed: null },
      ...{ x: [...trace!.x], absorbance: [...trace!.absorbance], at: "2026-11-30T10:00:00.000Z" },
    });
    const digits = text
      .trim()
      .split("\n")
      .slice(1)
      .map((row) => row.replaceAll(",", text.includes(";") ? "." : ",").split(/[;,]/))
      .map(([x = "", y = ""]) => [x, y === "1.20e-3" ? "0.00120" : y]);
    expect(line.x.texts.map((x, i) => [x, line.y.texts[i]])).toEqual(digits);
    expect(lineCsv(line)).toBe(
      `time_s,absorbance\r\n${digits.map((row) => `${row.join(",")}\r\n`).join("")}`,
    );
    for (const file of [lineCsv(line), lineJcamp(line), linesJcamp("Both", [line, line])])
      for (const back of (readTraceFile(file, "run.csv", "s") as typeof read).traces)
        expect(back).toEqual({ ...trace, name: "run" });
  });

  test("a number is never cut to decimals that it does not have", () => {
    expect(written([0.123, 2e-18, 5], 1)).toEqual(["0.123", "2e-18", "5.0"]);
    expect(written([0.123, 0.5], [3])).toEqual(["0.123", "0.5"]);
    expect(decimalsOf(["1.2e-18", "0.5"])).toEqual([15, 1]);
  });

  test("digits of packed and of scaled JCAMP-DX follow from its factors", () => {
    const [head, ...tail] = ["##TITLE=scan", "##JCAMP-DX=4.24"];
    const file = [
      ...[head, ...tail, "##XUNITS=NANOMETERS", "##YUNITS=ABSORBANCE", "##FIRSTX=400.0", "##LASTX=404.0"],
      ...["##DELTAX=2.0", "##XFACTOR=1", "##YFACTOR=0.0001", "##NPOINTS=3", "##XYDATA=(X++(Y..Y))"],
      ...["400.0 1230 4500 7000", "##END="],
    ].join("\n");
    expect(readTraceFile(file, "a.jdx", "nm")).toEqual({
      traces: [
        {
          ...{ name: "scan", x: [400, 402, 404], absorbance: [0.123, 0.45, 0.7] },
          decimals: { x: 1, absorbance: 4 },
        },
      ],
    });
    const mixed = linesJcamp("Mixed", [
      {
        ...{ is: "curve", name: "c", at: "2026-11-30T10:00:00.000Z", person: "MB" },
        x: { name: "volume added", unit: "mL", texts: ["0.00", "1.00"] },
        y: { name: "pH", unit: "", texts: ["2.10", "2.30"] },
      },
    ]);
    expect(readTraceFile(mixed, "a.jdx", "nm")).toEqual({
      problems: [{ line: 7, message: "Points are in MILLILITERS; nanometers are needed here" }],
    });
  });
});
