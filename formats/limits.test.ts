import { describe, expect, test } from "@jest/globals";
import { alkalinityOfWater } from "~/catalog/methods/acid-base/alkalinity-of-water";
import { mostPoints } from "~/core/record";
import { readMethodFile } from "./method-file";
import { readReadingsTable } from "./readings-table";
import { checkRunRequest } from "../protocol/requests";
import { readTraceFile } from "./trace-file";
import { plain } from "~/core/testing/plain";

/* Texts that are too long, too deep or too many are told so at once, whatever they claim. */

const problemsOf = (text: string) => {
  const read = readMethodFile(text);
  return "problems" in read ? read.problems : [];
};
const withMethod = (change: object) => problemsOf(JSON.stringify({ ...alkalinityOfWater, ...change }));

describe("a method", () => {
  test("with thousands of wrong parts names the first of them", () => {
    const wrong = Array.from({ length: 3000 }, () => ({
      kind: "titration",
      inputs: [{ is: "mass" }, { is: "bucket" }],
    }));
    const found = withMethod({ stages: wrong });
    expect(found.length).toBeGreaterThan(5);
    expect(found.length).toBeLessThanOrEqual(100);
    expect(found.map((p) => p.path)).toContain("stages");
    // Of the form that was meant alone: a mass lacks what a mass has.
    const { message } = withMethod({ stages: [{ kind: "titration", inputs: [{ is: "mass" }] }] }).find((p) =>
      p.path.startsWith("stages.0.inputs.0"),
    )!;
    expect(plain(message)).toMatch(/required property '(symbol|label|of|per)'/);
  });

  test.each([
    ["too long", `"${"x".repeat(600_000)}"`, /longer than 500,000 characters/],
    ["too many values", `[${"1,".repeat(70_000)}1]`, /more than 60,000 values/],
    ["too deep", `${"[".repeat(50)}${"]".repeat(50)}`, /nested more than 40 deep/],
    ["a NUL", JSON.stringify({ ...alkalinityOfWater, title: "a\0b" }), /character that cannot be kept/],
    ["half a surrogate pair", '{"id":"\\ud800"}', /character that cannot be kept/],
  ])("that is %s is refused", (_name, text, message) => {
    expect(plain(problemsOf(text).map((p) => p.message))).toEqual([expect.stringMatching(message)]);
  });

  test.each([["new"], ["import"], ["constructor"]])(
    "called %s is refused: the program needs that word",
    (id) => {
      expect(plain(withMethod({ id }))).toEqual([
        { path: "id", message: expect.stringMatching(/needs itself/) },
      ]);
    },
  );

  test.each([
    [{ id: "../../etc" }, "id", /letters, digits and hyphens/],
    [
      { equations: Array.from({ length: 41 }, () => alkalinityOfWater.equations[0]) },
      "equations",
      /40 items/,
    ],
    [
      { equations: [{ name: "x", equation: `H2O -> ${"H2O + ".repeat(120)}H2O` }] },
      "equations.0.equation",
      /at most 600/,
    ],
    [
      { equations: [{ name: "x", equation: "C999999H2 -> C999999H2" }] },
      "equations.0.equation",
      /too many for a formula/,
    ],
  ])("with %p is refused at its place", (change, path, message) => {
    expect(plain(withMethod(change))).toContainEqual({ path, message: expect.stringMatching(message) });
  });

  test("whose relation is nested without end is refused in words", () => {
    const [first] = alkalinityOfWater.stages;
    const relation = `x = ${"(".repeat(150)}1${")".repeat(150)}`;
    const stages = [
      { ...first, relations: [{ relation, title: "x", unit: "1" }] },
      ...alkalinityOfWater.stages.slice(1),
    ];
    expect(plain(withMethod({ stages })[0]?.message)).toMatch(/nested at most 100 deep/);
  });
});

describe("files of an instrument", () => {
  const points = (n: number) => Array.from({ length: n }, (_, i) => `${i},0.5`).join("\n");
  const message = (text: string, name = "x.csv") => {
    const read = readTraceFile(text, name, "s");
    return "problems" in read ? read.problems.map((p) => p.message).join() : read.traces[0]!.x.length;
  };

  test("with as many points as are kept are read, with more they are refused", () => {
    expect(message(points(mostPoints))).toBe(mostPoints);
    expect(message(points(200_000))).toMatch(/more than the 100,000 points/);
  });

  test.each([
    ["that claims millions of points", "##NPOINTS=5000000", "0 1 2"],
    ["whose packed form unfolds to millions", "##NPOINTS=3", "0 1 S9999999"],
  ])("a short JCAMP file %s is refused", (_name, header, data) => {
    const file = ["##TITLE=x", "##JCAMP-DX=4.24", "##XUNITS=SECONDS", "##YUNITS=ABSORBANCE", header];
    expect(message([...file, "##XYDATA=(X++(Y..Y))", data, "##END="].join("\n"), "x.jdx")).toMatch(
      /more than the 100,000/,
    );
  });

  test("a table of 200,000 rows is refused", () => {
    const rows = Array.from({ length: 200_000 }, (_, i) => `${i}\t0.5`).join("\n");
    expect(readReadingsTable(rows, "mL").problems).toEqual([
      { row: 1, column: 1, message: "There are more than 100 flasks in the table" },
    ]);
  });
});

test("a request of a kind that there is not, or with a field too many, names it", () => {
  const message = (value: unknown) => {
    const checked = checkRunRequest(value);
    return checked.ok ? "" : checked.problem.message;
  };
  expect(plain(message({ intent: "explode" }))).toMatch(/^intent: must be one of observe, enter, trace/);
  expect(plain(message({}))).toMatch(/required property 'intent'/);
  expect(plain(message({ intent: "finish", why: 1 }))).toBe(
    'the whole: must NOT have additional properties: "why"',
  );
});
