import { spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { recordOfFile, type RunFile } from "./concluded";
import { exampleRecords } from "./examples";
import { readRunRecord, reportOf, type RunReport } from "./run-report";
import { inEnglish } from "~/core/text";

const file = "formats/examples/solid-in-each-flask-then-direct.json";
const example = () => JSON.parse(readFileSync(file, "utf8")) as RunFile;

/** Where something stands in the example, and what stands there instead; undefined takes it out. */
type Change = readonly [path: string, value: unknown];

/** The example with one thing or more changed, as JSON would bring it. */
const changed = (...changes: readonly Change[]): unknown => changedIn(example(), ...changes);

function changedIn(original: unknown, ...changes: readonly Change[]): unknown {
  const record = structuredClone(original);
  for (const [at, value] of changes) {
    const keys = at.split(".");
    const last = keys.pop() ?? "";
    const holder = keys.reduce<unknown>((here, key) => (here as Record<string, unknown>)[key], record);
    if (value === undefined) Reflect.deleteProperty(holder as object, last);
    else (holder as Record<string, unknown>)[last] = value;
  }
  return record;
}
const problems = (value: unknown) => {
  const read = readRunRecord(value);
  return "problems" in read
    ? read.problems.map(({ path: at, message }) => `${at}: ${inEnglish(message)}`)
    : [];
};

describe("examples", () => {
  test("are one for each shape, and what their script writes (npm run examples)", () => {
    const made = exampleRecords();
    expect(readdirSync("formats/examples").sort()).toEqual(made.map(([name]) => `${name}.json`).sort());
    for (const [name, text] of made) expect(readFileSync(`formats/examples/${name}.json`, "utf8")).toBe(text);
  });

  test("are read without a fault, and every stage of them has a result", () => {
    for (const [, text] of exampleRecords()) {
      const read = readRunRecord(JSON.parse(text));
      if ("problems" in read) throw new Error(inEnglish(read.problems[0]?.message ?? ""));
      for (const stage of reportOf(read.record).stages) {
        expect(stage.result?.value).toBeGreaterThan(0);
        expect(stage.result!.interval95[0]).toBeLessThan(stage.result!.value);
        expect(stage.working.length).toBeGreaterThan(1);
      }
    }
  });
});

describe("what is wrong with a record is told by path", () => {
  test.each<[string, readonly Change[], RegExp]>([
    [
      "a word that is none",
      [["houseRules.plusMinus", "k9"]],
      /^houseRules\.plusMinus: must be one of k2, u, i95$/,
    ],
    [
      "a rule without its width",
      [["houseRules.agreement.withinMl", undefined]],
      /^houseRules\.agreement: must have required property 'withinMl'$/,
    ],
    [
      "a rule that does not exist",
      [["houseRules.agreement.rule", "by feeling"]],
      /^houseRules\.agreement\.rule: must be one of n-within, within-of-mean/,
    ],
    [
      "an input of no known kind",
      [["method.stages.0.inputs.0.is", "guess"]],
      /^method\.stages\.0\.inputs\.0\.is: must be one of mass, purity, titer/,
    ],
    [
      "an input that lacks a part",
      [["method.stages.0.inputs.0.of", undefined]],
      /^method\.stages\.0\.inputs\.0: must have required property 'of'$/,
    ],
    ["something that does not belong", [["stages.0.color", "red"]], /^stages\.0: .*"color"$/],
    [
      "a value that is no decimal",
      [["stages.0.trials.0.observations.0.value", "NaN"]],
      /^stages\.0\.trials\.0\.observations\.0\.value: /,
    ],
    ["no record at all", [["format", undefined]], /^the whole: must have required property 'format'$/],
  ])("shape: %s", (_what, changes, message) => {
    const found = problems(changed(...changes));
    expect(found).toHaveLength(1);
    expect(found[0]).toMatch(message);
  });

  test.each<[string, readonly Change[], RegExp]>([
    [
      "a method that loses atoms",
      [["method.equations.0.equation", "Na2CO3 + HCl -> NaCl + H2O + CO2"]],
      /^method: .*does not balance/,
    ],
    [
      "a relation that adds unlike things",
      [["method.stages.0.relations.0.relation", "n_s = m + V"]],
      /^method: .*they cannot be added/,
    ],
    [
      "a stage that the method has not",
      [["stages.1.key", "other"]],
      /^stages\.1\.key: The method has no stage "other"/,
    ],
    [
      "a reading that nobody reads there",
      [["stages.0.trials.1.observations.0.symbol", "q"]],
      /^stages\.0\.trials\.1\.observations\.0: No .* is read here/,
    ],
    [
      "a value that its text does not mean",
      [["stages.0.trials.0.observations.3.value", "1"]],
      /^stages\.0\.trials\.0\.observations\.3\.value: The text ".*" does not mean 1/,
    ],
    [
      "a burette that ran backwards",
      [
        ["stages.0.trials.0.observations.3.text", "0.00"],
        ["stages.0.trials.0.observations.3.value", "0.00"],
      ],
      /^stages\.0\.trials\.0\.observations\.\d: The final reading 0\.00 is not above/,
    ],
    [
      "a correction of what was never there",
      [["stages.0.trials.0.observations.1.supersedes", "nobody"]],
      /supersedes: No earlier observation is called nobody/,
    ],
    [
      "a unit that is not the instrument's",
      [["stages.0.trials.0.observations.0.unit", "mg"]],
      /unit: It is read in g, not in mg/,
    ],
  ])("sense: %s", (_what, changes, message) => {
    const found = problems(changed(...changes));
    expect(found.some((line) => message.test(line))).toBe(true);
  });
});

/** Every place in a value, as keys joined by points. */
function placesIn(value: unknown, at = ""): string[] {
  if (typeof value !== "object" || value === null) return [at];
  const inside = Object.entries(value).flatMap(([key, part]) =>
    placesIn(part, at === "" ? key : `${at}.${key}`),
  );
  return at === "" ? inside : [at, ...inside];
}

test("a value whose ± is beyond all measure is told and never shown", () => {
  const dilution = JSON.parse(readFileSync("formats/examples/dilute-and-check.json", "utf8")) as unknown;
  const read = readRunRecord(changedIn(dilution, ["method.stages.0.inputs.2.capacityMl", 1e157]));
  if ("problems" in read) throw new Error(inEnglish(read.problems[0]?.message ?? ""));
  const [made] = reportOf(read.record).stages;
  expect(made).toMatchObject({
    result: null,
    problem:
      'Concentration made cannot be calculated: with its ± it is not a number that could be measured, in "c_m = n / V_e"',
  });
});

test("whatever is put anywhere in a record: a fault by path or a finite result, never a crash", () => {
  const records = exampleRecords().map(([, text]) => JSON.parse(text) as unknown);
  const junk = fc.oneof(
    fc.constantFrom<unknown>(
      null,
      "",
      "NaN",
      "Infinity",
      "0",
      "-5",
      "50.01",
      "1e9",
      "V",
      "m + V",
      [],
      {},
      0,
      -1,
      1e308,
    ),
    fc.constant(undefined),
    fc.string(),
    fc.double(),
  );
  let [refused, computed] = [0, 0];
  fc.assert(
    fc.property(fc.constantFrom(...records), fc.nat(), junk, (record, place, value) => {
      const places = placesIn(record);
      const at = places[place % places.length] ?? "";
      const read = readRunRecord(changedIn(record, [at, value]));
      if ("problems" in read) {
        refused++;
        expect(read.problems.length).toBeGreaterThan(0);
        for (const problem of read.problems) expect(inEnglish(problem.message).length).toBeGreaterThan(3);
        return;
      }
      computed++;
      for (const { result } of reportOf(read.record).stages) {
        if (result) expect(Number.isFinite(result.value + result.standardUncertainty)).toBe(true);
      }
    }),
    { numRuns: 1500 },
  );
  expect(refused).toBeGreaterThan(300);
  expect(computed).toBeGreaterThan(100);
});

describe("bin/recompute", () => {
  const folder = mkdtempSync(path.join(tmpdir(), "recompute-"));
  afterAll(() => rmSync(folder, { recursive: true }));
  const recompute = (...args: string[]) => spawnSync("bin/recompute", args, { encoding: "utf8" });
  const written = (name: string, text: string) => {
    const at = path.join(folder, name);
    writeFileSync(at, text);
    return at;
  };

  test("prints results, verdicts and working as text, from any folder", () => {
    const { status, stdout } = spawnSync(path.resolve("bin/recompute"), [path.resolve(file)], {
      encoding: "utf8",
      cwd: folder,
    });
    expect(status).toBe(0);
    expect(stdout).toMatch(/Trials 1, 2 and 3 lie within/);
    expect(stdout).toMatch(/Concentration of the base: 0\.1\d+ ± 0\.0\d+ mol\/L/);
    expect(stdout).toMatch(/n_s = m \* P \/ M\(KHC8H4O4\) = \d\.\d+ mmol/);
  });

  test("prints the same as JSON, in full digits", () => {
    const { status, stdout } = recompute(file, "--json");
    expect(status).toBe(0);
    const report = JSON.parse(stdout) as RunReport;
    expect(report).toEqual(JSON.parse(JSON.stringify(reportOf(recordOfFile(example())))));
    expect(report.stages.map((s) => s.key)).toEqual(["standardize", "determine"]);
  });

  test("exits 2 with what is wrong and where", () => {
    const bad = written("bad.json", JSON.stringify(changed(["status", "lost"])));
    expect(recompute(bad)).toMatchObject({
      status: 2,
      stdout: "",
      stderr: "status: must be one of open, finished, archived\n",
    });
    expect(JSON.parse(recompute(bad, "--json").stdout)).toMatchObject({ problems: [{ path: "status" }] });
    expect(recompute(written("cut.json", '{"format": "steady'))).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/is not JSON/) as unknown,
    });
    expect(recompute(path.join(folder, "none.json"))).toMatchObject({ status: 2 });
    expect(recompute()).toMatchObject({ status: 2 });
  });
});
