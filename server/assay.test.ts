import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as newId } from "uuid";
import { methods } from "~/catalog/methods";
import { mustHold } from "~/core/result";
import type { CalibrationEvaluation } from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import { readingsOf } from "~/core/record";
import { checkRunRequest, type RunRequest } from "~/protocol/requests";
import { type Enter } from "~/core/change";
import { readRunRecord } from "~/formats/run-report";
import { type OpenDatabase, openDatabase } from "./lab/open-database";
import { putMethods } from "./commands/methods";
import { loadRunState } from "./queries/stored-run";
import { startRun } from "./commands/start-run";
import { benchOn } from "./tests/bench";
import { plain } from "~/core/testing/plain";

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
  await putMethods(open.db, methods);
});
afterAll(() => open.close());
const { change, record } = benchOn(() => open);

const begin = async (methodId = "phosphate-as-molybdenum-blue") =>
  mustHold(
    await startRun(open.db, { intent: "start", methodId, title: "Assay", sample: "", bench: "bench 1" }),
  );

const read = (text: string, person = "bench 1", symbol = "A") => ({
  id: newId(),
  symbol,
  kind: "absorbance" as const,
  text,
  person,
});

const flask = (
  ml: string,
  readings: readonly ReturnType<typeof read>[],
  id: string = newId(),
): Enter["rows"][number] => ({
  trial: { id, kind: "fine" },
  readings: [{ id: newId(), symbol: "V_s", kind: "volume.taken", text: ml, person: "bench 1" }, ...readings],
});

const enter = (rows: Enter["rows"]): Enter => ({
  intent: "enter",
  stageKey: "standards",
  source: "imported",
  rows,
});

const lineOf = async (runId: string) =>
  evaluateRun(await record(runId)).stages.find((s) => s.kind === "calibration") as CalibrationEvaluation;

const undo = async (runId: string) => {
  const state = await loadRunState(open.db, runId);
  return change(runId, { intent: "undo", eventId: state!.undo!.eventId });
};

describe("a table of readings", () => {
  const rows = () =>
    ["0.00", "4.00", "8.00"].map((ml, i) =>
      flask(ml, [read((0.28 * i).toFixed(3)), read((0.281 * i).toFixed(3), "bench 2")]),
    );

  test("is entered as a whole: flasks, readers, source; sent again it is written once", async () => {
    const runId = await begin();
    const request = enter(rows());
    expect(checkRunRequest(request).ok).toBe(true);
    expect(plain(await change(runId, request))).toMatchObject({ status: "done" });
    expect(plain(await change(runId, request))).toMatchObject({ status: "done" });
    const line = await lineOf(runId);
    expect(plain(line.levels.map((l) => [l.name, l.readings.map((r) => [r.text, r.person])]))).toEqual([
      [
        "standard 1",
        [
          ["0.000", "bench 1"],
          ["0.000", "bench 2"],
        ],
      ],
      [
        "standard 2",
        [
          ["0.280", "bench 1"],
          ["0.281", "bench 2"],
        ],
      ],
      [
        "standard 3",
        [
          ["0.560", "bench 1"],
          ["0.562", "bench 2"],
        ],
      ],
    ]);
    expect(line.line?.fit.points).toHaveLength(6);
    const exported = readRunRecord(JSON.parse(JSON.stringify(await record(runId))));
    expect(exported).not.toHaveProperty("problems");
  });

  test("with one wrong cell writes nothing at all", async () => {
    const runId = await begin();
    const [first, second] = rows();
    second!.readings[1]!.text = "5.2";
    expect(plain(await change(runId, enter([first!, second!])))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/5.2 is more than 4/),
    });
    expect((await lineOf(runId)).levels).toEqual([]);
  });

  test("is taken back by one undo, and the flasks are gone with it", async () => {
    const runId = await begin();
    await change(runId, enter(rows()));
    expect(plain(await undo(runId))).toMatchObject({ status: "done" });
    expect(plain(await lineOf(runId))).toMatchObject({ levels: [], line: null });
  });

  test("adds to flasks that are there, and refuses to say otherwise of what was taken for one", async () => {
    const runId = await begin();
    const id = newId();
    await change(runId, enter([flask("4.00", [read("0.280")], id)]));
    const more = { trial: { id, kind: "fine" as const }, readings: [read("0.283", "bench 3")] };
    expect(plain(await change(runId, enter([more])))).toMatchObject({ status: "done" });
    expect((await lineOf(runId)).levels[0]?.readings).toHaveLength(2);
    expect(plain(await change(runId, enter([flask("6.00", [read("0.4")], id)])))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/read as 4.00 meanwhile/),
    });
  });
});

describe("one reading of many", () => {
  const withOne = async () => {
    const runId = await begin();
    await change(runId, enter([flask("4.00", [read("0.280"), read("0.380"), read("0.281")])]));
    const wrong = (await lineOf(runId)).levels[0]!.readings[1]!;
    return { runId, wrong };
  };
  const shown = async (runId: string) =>
    (await lineOf(runId)).levels[0]!.readings.map((r) =>
      r.struck ? `(${r.text}: ${r.struck.reason})` : r.text,
    );

  test("is struck out with its reason, brought back, and both can be undone", async () => {
    const { runId, wrong } = await withOne();
    expect(
      plain(await change(runId, { intent: "strike-reading", observationId: wrong.id, reason: "bubble" })),
    ).toMatchObject({ status: "done" });
    expect(await shown(runId)).toEqual(["0.280", "(0.380: bubble)", "0.281"]);
    expect(
      plain(await change(runId, { intent: "strike-reading", observationId: wrong.id, reason: "again" })),
    ).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/changed meanwhile/),
    });
    const struck = (await lineOf(runId)).levels[0]!.readings[1]!;
    await change(runId, { intent: "restore-reading", observationId: struck.id });
    expect(await shown(runId)).toEqual(["0.280", "0.380", "0.281"]);
    await undo(runId);
    expect(await shown(runId)).toEqual(["0.280", "(0.380: bubble)", "0.281"]);
    await undo(runId);
    expect(await shown(runId)).toEqual(["0.280", "0.380", "0.281"]);
  });

  test("is corrected by name; the others stay, and the old value is kept beneath", async () => {
    const { runId, wrong } = await withOne();
    const [level] = (await lineOf(runId)).levels;
    const correction: RunRequest = {
      intent: "observe",
      id: newId(),
      stageKey: "standards",
      trial: { id: level!.id, kind: "fine" },
      symbol: "A",
      kind: "absorbance",
      text: "0.280",
      supersedes: wrong.id,
      reason: "misread",
      person: "bench 4",
    };
    expect(plain(await change(runId, { ...correction, reason: null }))).toMatchObject({ status: "refused" });
    expect(plain(await change(runId, correction))).toMatchObject({ status: "done" });
    expect(await shown(runId)).toEqual(["0.280", "0.280", "0.281"]);
    expect(plain(await change(runId, { ...correction, id: newId() }))).toMatchObject({ status: "refused" });
    const trial = (await record(runId)).stages.find((s) => s.key === "standards")!.trials[0]!;
    expect(trial.observations.filter((o) => o.kind === "absorbance")).toHaveLength(4);
    expect(readingsOf(trial.observations, "A")).toHaveLength(3);
  });

  test("that is no reading of a photometer is struck out with its trial only", async () => {
    const { runId } = await withOne();
    const trial = (await record(runId)).stages.find((s) => s.key === "standards")!.trials[0]!;
    const volume = trial.observations.find((o) => o.kind === "volume.taken")!;
    expect(
      plain(await change(runId, { intent: "strike-reading", observationId: volume.id, reason: "x" })),
    ).toMatchObject({ status: "malformed" });
  });
});

test("The line is chosen for the run, checked against its kind, and the choice is undone like all else", async () => {
  const runId = await begin();
  await change(
    runId,
    enter(["0.00", "4.00", "8.00"].map((ml, i) => flask(ml, [read((0.28 * i).toFixed(3))]))),
  );
  const choose = (name: string, value: string) =>
    change(runId, { intent: "choose", stageKey: "standards", name, value });
  expect(plain(await choose("model", "origin"))).toMatchObject({ status: "done" });
  expect(plain(await choose("zero", "out"))).toMatchObject({ status: "done" });
  expect((await lineOf(runId)).choice).toEqual({
    ...{ model: "origin", weighting: "none", zero: false, blank: "zeroed" },
  });
  expect(plain(await choose("model", "cubic"))).toMatchObject({ status: "malformed" });
  expect(plain(await choose("order", "2"))).toMatchObject({ status: "malformed" });
  const unit = (value: string) =>
    change(runId, { intent: "choose", stageKey: "unknown", name: "unit", value });
  expect(plain(await unit("mL"))).toMatchObject({ status: "malformed" });
  expect(plain(await unit("µg/L"))).toMatchObject({ status: "done" });
  expect((await record(runId)).stages.find((s) => s.key === "unknown")?.choices).toEqual({ unit: "µg/L" });
  await undo(runId);
  await undo(runId);
  expect((await lineOf(runId)).choice.zero).toBe(true);
  await choose("model", "");
  expect((await lineOf(runId)).choice.model).toBe("line");
});

describe("a course of absorbance", () => {
  const seconds = Array.from({ length: 60 }, (_, t) => t);
  const course = (more: Partial<Extract<RunRequest, { intent: "trace" }>> = {}) =>
    ({
      intent: "trace",
      id: newId(),
      stageKey: "fading",
      trialId: newId(),
      readings: [{ id: newId(), symbol: "c_B", kind: "given", text: "0.100" }],
      name: "course 1",
      xUnit: "s",
      x: seconds,
      absorbance: seconds.map((t) => Number((0.9 * Math.exp(-0.02 * t)).toFixed(3))),
      source: "imported",
      person: "",
      ...more,
    }) satisfies RunRequest;
  const rateOf = async (runId: string) => {
    const stage = evaluateRun(await record(runId)).stages.find((s) => s.kind === "rate");
    if (stage?.kind !== "rate") throw new Error("no rate");
    return stage;
  };

  test("comes with what was typed of its cuvette, once, and is put away and brought back", async () => {
    const runId = await begin("fading-of-a-dye");
    const request = course();
    expect(plain(await change(runId, request))).toMatchObject({ status: "done" });
    expect(plain(await change(runId, request))).toMatchObject({ status: "done" });
    expect((await rateOf(runId)).trials).toHaveLength(1);
    expect(plain((await rateOf(runId)).problem)).toBe("Temperature is still to be typed");
    await change(runId, {
      intent: "observe",
      id: newId(),
      stageKey: "fading",
      trial: null,
      symbol: "T",
      kind: "temperature",
      text: "21.0",
      supersedes: null,
      reason: null,
    });
    expect((await rateOf(runId)).combined?.quantity.value).toBeCloseTo(0.2, 2);
    await change(runId, { intent: "put-away", traceId: request.id, reason: "lamp off" });
    expect((await rateOf(runId)).combined).toBeNull();
    await change(runId, { intent: "bring-back", traceId: request.id });
    expect((await rateOf(runId)).trials[0]?.trace?.x).toEqual(seconds);
    // Undone: brought back is away again, away is back, and the course itself is gone.
    await undo(runId);
    expect((await rateOf(runId)).combined).toBeNull();
    await undo(runId);
    await undo(runId);
    await undo(runId);
    expect((await rateOf(runId)).trials).toEqual([]);
  });

  test.each([
    [
      "times go back",
      { x: seconds.map((t) => (t === 30 ? 28 : t)) },
      "refused",
      /Point 31: 28 s does not lie beyond the 29/,
    ],
    ["absorbances are missing", { absorbance: [0.9, 0.8] }, "malformed", /60 points but 2 absorbances/],
    ["it is a spectrum of a cuvette", { xUnit: "nm" as const }, "malformed", /no such kinetic run/],
    [
      "what is typed with it is no number",
      { readings: [{ id: newId(), symbol: "c_B", kind: "given" as const, text: "much" }] },
      "refused",
      /"m" is not a digit/,
    ],
  ])("is refused where %s, and nothing of it stays", async (_what, more, status, message) => {
    const runId = await begin("fading-of-a-dye");
    expect(plain(await change(runId, course(more)))).toMatchObject({
      status,
      message: expect.stringMatching(message),
    });
    expect((await rateOf(runId)).trials).toEqual([]);
  });

  test("a spectrum belongs to the stage at which the wavelength is chosen", async () => {
    const runId = await begin();
    const scan = course({ stageKey: "wavelength", trialId: null, readings: [], xUnit: "nm", name: "scan 1" });
    expect(plain(await change(runId, scan))).toMatchObject({ status: "done" });
    const stage = (await record(runId)).stages.find((s) => s.key === "wavelength");
    expect(stage?.traces).toMatchObject([{ name: "scan 1", trialId: null, removed: null }]);
    expect(plain(await change(runId, { intent: "delete" }))).toMatchObject({ status: "refused" });
  });
});

describe("two devices at one assay", () => {
  test("readings sent at the same moment are all kept, in flasks of unlike number", async () => {
    const runId = await begin();
    const sent = ["0.00", "2.00", "4.00", "6.00"].map((ml, i) =>
      change(runId, enter([flask(ml, [read((0.14 * i).toFixed(3), `bench ${i}`)])])),
    );
    for (const outcome of await Promise.all(sent)) expect(plain(outcome)).toMatchObject({ status: "done" });
    const line = await lineOf(runId);
    expect(line.levels.map((l) => l.x?.toFixed(1))).toEqual(["0.0", "0.2", "0.4", "0.6"]);
    expect(new Set(line.levels.map((l) => l.record.number)).size).toBe(4);
  });

  test("a reading that one strikes out while the other corrects it: the later one is told, nothing is lost", async () => {
    const runId = await begin();
    const id = newId();
    await change(runId, enter([flask("4.00", [read("0.380")], id)]));
    const [reading] = (await lineOf(runId)).levels[0]!.readings;
    await change(runId, { intent: "strike-reading", observationId: reading!.id, reason: "bubble" });
    const late = await change(runId, {
      intent: "observe",
      id: newId(),
      stageKey: "standards",
      trial: { id, kind: "fine" },
      symbol: "A",
      kind: "absorbance",
      text: "0.280",
      supersedes: reading!.id,
      reason: "misread",
    });
    expect(plain(late)).toMatchObject({ status: "refused", message: expect.stringMatching(/look again/) });
    expect((await lineOf(runId)).levels[0]?.readings).toMatchObject([
      { text: "0.380", struck: { reason: "bubble" } },
    ]);
  });

  test("blanks are counted as often as they are read, and belong to no flask", async () => {
    const runId = await begin();
    const blanks = [0.001, 0.002, 0].map((a) => read(a.toFixed(3), "bench 2", "A_0"));
    expect(plain(await change(runId, enter([{ trial: null, readings: blanks }])))).toMatchObject({
      status: "done",
    });
    const line = await lineOf(runId);
    expect(plain([line.blanks.map((b) => b.text), line.levels])).toEqual([["0.001", "0.002", "0.000"], []]);
    expect(plain(await change(runId, enter([{ trial: null, readings: [read("0.3")] }])))).toMatchObject({
      status: "malformed",
    });
  });
});
