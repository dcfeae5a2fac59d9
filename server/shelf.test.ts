import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as newId } from "uuid";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { mustHold } from "~/core/result";
import { checkRecord, evaluateRun } from "~/core/evaluate";
import { type ObservationKind, presentObservation } from "~/core/record";
import { type RunRecord, isEmptyRun } from "~/core/run";
import type { AddSolution, EditSolution, MakeSolution } from "~/protocol/shelf";
import { type OpenDatabase, openDatabase } from "./lab/open-database";
import { putFirstHouseRules } from "./commands/begin-lab";
import { saveHouseRules } from "./commands/house-rules";
import { putMethods } from "./commands/methods";
import { startRun } from "./commands/start-run";
import { addSolution, assign, editSolution, makeSolution, putAll } from "./commands/shelf";
import { listShelf, solutionById } from "./queries/shelf";
import { shelfOfRun } from "./queries/shelf-of-run";
import { benchOn } from "./tests/bench";
import { plain } from "~/core/testing/plain";

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
  await putFirstHouseRules(open.db, defaultHouseRules);
  const one = { rule: "n-within", replicates: 1, withinMl: "0.10" } as const;
  const by = { person: "AB", reason: "one trial is enough" };
  await saveHouseRules(open.db, { ...defaultHouseRules, agreement: one }, by);
  await putMethods(open.db, methods);
});
afterAll(() => open.close());
const { change, record } = benchOn(() => open);

const base: AddSolution = {
  intent: "add",
  form: "solution",
  formula: "NaOH",
  name: "sodium hydroxide, 0.1 mol/L",
  how: "nominal",
  value: "0.1",
  plusMinus: "0.005",
  person: "bench 1",
  amount: "1000",
  restandardizeBy: "2026-12-01",
  hazards: "corrosive",
  note: "",
};

async function put(request: Partial<AddSolution> = {}): Promise<string> {
  const answer = await addSolution(open.db, { ...base, ...request });
  if ("problems" in answer) throw new Error(JSON.stringify(answer.problems));
  return answer.id;
}
const bottle = async (id: string) => (await solutionById(open.db, id))!;

const begin = async (methodId: string) =>
  mustHold(
    await startRun(open.db, { intent: "start", methodId, title: methodId, sample: "", bench: "bench 2" }),
  );

const read = (
  runId: string,
  stageKey: string,
  trialId: string | null,
  symbol: string,
  kind: string,
  text: string,
) =>
  change(runId, {
    intent: "observe",
    id: newId(),
    stageKey,
    trial: trialId === null ? null : { id: trialId, kind: "fine" },
    symbol,
    kind: kind as "given",
    text,
    supersedes: null,
    reason: null,
  });

const take = (
  runId: string,
  stageKey: string,
  symbol: string,
  assignmentId: string,
  reason: string | null = null,
) => change(runId, { intent: "take", stageKey, symbol, assignmentId, reason });

async function trial(
  runId: string,
  stageKey: string,
  readings: readonly (readonly [string, string, string])[],
) {
  const id = newId();
  for (const [symbol, kind, text] of readings) {
    expect(plain(await read(runId, stageKey, id, symbol, kind, text))).toMatchObject({ status: "done" });
  }
}

const aliquot = (symbol: string, ml: string, final: string) =>
  [
    [symbol, "volume.taken", ml],
    ["V", "burette.initial", "0.00"],
    ["V", "burette.final", final],
  ] as const;

const resultOf = (r: RunRecord, key: string) => {
  const stage = evaluateRun(r).stages.find((s) => s.key === key);
  return plain(stage?.shown?.text);
};

describe("a bottle", () => {
  test("stands on the shelf with what is known of it, numbered, and past its date when the day is over", async () => {
    const id = await put();
    const later = await put({ name: "sodium hydroxide, second" });
    const [a, b] = [await bottle(id), await bottle(later)];
    expect(a.solution).toMatchObject({
      amountLeft: "1000",
      current: { value: "0.1", how: "nominal", plusMinus: "0.005" },
    });
    expect(Number(b.solution.code.slice(2))).toBeGreaterThan(Number(a.solution.code.slice(2)));
    const states = async (day: string) =>
      (await listShelf(open.db, false, new Date(day))).find((s) => s.id === id)?.state;
    expect([await states("2026-12-01T20:00:00Z"), await states("2026-12-02T08:00:00Z")]).toEqual([
      "in use",
      "past its date",
    ]);
  });

  test.each([
    [{ formula: "NaXx" }, { formula: expect.stringMatching(/Xx/) }],
    [{ form: "solid", value: "101" }, { value: expect.stringMatching(/over 100 %/) }],
    [
      { value: "much", plusMinus: "a bit" },
      { value: "Give a number above zero", plusMinus: "Give the ± as a number" },
    ],
    [{ amount: "lots" }, { amount: expect.stringMatching(/number/) }],
  ] as const)("is refused with %p, by field", async (wrong, problems) => {
    expect(plain(await addSolution(open.db, { ...base, ...wrong }))).toEqual({ problems });
  });

  test("that two people edit at once tells the second, and keeps what the first saved", async () => {
    const id = await put();
    const { revision } = (await bottle(id)).solution;
    const edit: EditSolution = {
      intent: "edit",
      revision,
      name: "first",
      amountLeft: "900",
      restandardizeBy: "",
      hazards: "",
      note: "",
      usedUp: false,
      person: "bench 1",
      reason: "a spill",
    };
    expect(plain(await editSolution(open.db, id, edit))).toEqual({ id });
    expect(plain(await editSolution(open.db, id, { ...edit, name: "second" }))).toEqual({
      problems: { form: expect.stringMatching(/Someone else has changed/) },
    });
    expect((await bottle(id)).solution).toMatchObject({
      name: "first",
      amountLeft: "900",
      revision: revision + 1,
    });
    expect(
      plain(await editSolution(open.db, id, { ...edit, revision: revision + 1, amountLeft: "1001" })),
    ).toEqual({
      problems: { amountLeft: expect.stringMatching(/there cannot be more left/) },
    });
  });
});

describe("making", () => {
  const weighed: MakeSolution = {
    intent: "make",
    formula: "KHC8H4O4",
    name: "phthalate standard",
    making: {
      how: "weighed",
      solid: "KHC8H4O4",
      solidName: "potassium hydrogen phthalate",
      weighing: "transfer",
      window: [4.8, 5.4],
      purity: { percent: "100.00", plusMinus: "0.05" },
      flaskMl: "250.0",
    },
    typed: { "m:mass.before": "8.1056", "m:mass.after": "3.0000" },
    fromId: null,
    person: "bench 3",
    amount: "250",
    restandardizeBy: "",
    hazards: "",
    note: "",
  };

  test("weighs, computes and keeps how; a dilution of it stands on it and carries its ± on", async () => {
    const made = await makeSolution(open.db, weighed);
    if ("problems" in made) throw new Error(JSON.stringify(made.problems));
    const stock = await bottle(made.id);
    // 5.1056 g / 204.222 g/mol / 0.2500 L (CHECKS.md)
    expect(Number(stock.solution.current!.value)).toBeCloseTo(0.100001, 6);
    expect(stock.making).toMatchObject({ method: { family: "solutions" } });

    const thin = await makeSolution(open.db, {
      ...weighed,
      name: "phthalate, tenfold thinner",
      making: { how: "diluted", glass: { kind: "pipette" }, flaskMl: "250.0" },
      typed: { "V_0:volume.taken": "25.00" },
      fromId: made.id,
    });
    if ("problems" in thin) throw new Error(JSON.stringify(thin.problems));
    const diluted = (await bottle(thin.id)).solution.current!;
    expect(Number(diluted.value)).toBeCloseTo(0.0100001, 7);
    const relative = (a: { value: string; plusMinus: string }) => Number(a.plusMinus) / Number(a.value);
    expect(relative(diluted)).toBeGreaterThan(relative(stock.solution.current!));
    expect((await bottle(made.id)).solution.amountLeft).toBe("225");
    const tooMuch = await makeSolution(open.db, {
      ...weighed,
      making: { how: "diluted", glass: { kind: "pipette" }, flaskMl: "10" },
      typed: { "V_0:volume.taken": "25.00" },
      fromId: made.id,
    });
    expect(plain(tooMuch)).toEqual({ problems: { volume: "That is more stock than the flask holds" } });
  });

  test.each([
    [{ typed: { "m:mass.before": "8.1056" } }, { form: "Still to be read: Boat after transfer" }],
    [
      { typed: { "m:mass.before": "eight", "m:mass.after": "3.0000" } },
      { "m:mass.before": expect.any(String) },
    ],
    [{ formula: "K(" }, { formula: expect.any(String) }],
    [
      { making: { ...weighed.making, purity: { percent: "120", plusMinus: "0" } } },
      { purity: expect.stringMatching(/over 100 %/) },
    ],
    [{ making: { ...weighed.making, flaskMl: "0" } }, { volume: expect.any(String) }],
  ])("is refused with %p, and nothing is put on the shelf", async (wrong, problems) => {
    const before = (await listShelf(open.db)).length;
    expect(plain(await makeSolution(open.db, { ...weighed, ...wrong }))).toEqual({ problems });
    expect((await listShelf(open.db)).length).toBe(before);
  });
});

test("of several bottles all are put on the shelf, or none", async () => {
  const names = async () => (await listShelf(open.db)).filter((b) => b.name.startsWith("one of several"));
  const [good, bad] = [
    { ...base, name: "one of several" },
    { ...base, name: "one of several, bad", value: "none" },
  ];
  expect(plain(await putAll(open.db, [good, bad]))).toEqual({ problems: { value: expect.any(String) } });
  expect(await names()).toEqual([]);
  expect(plain(await putAll(open.db, [good, good]))).toMatchObject({ id: expect.any(String) });
  expect(await names()).toHaveLength(2);
  expect(plain(await putAll(open.db, []))).toMatchObject({ problems: { form: expect.any(String) } });
});

describe("what the shelf knows is not presumed", () => {
  test("a run begins with the bottle that fits, shown as such; another, or a typed value, takes its place without a reason", async () => {
    const day = (days: number) => new Date(Date.now() + days * 24 * 3_600_000).toISOString().slice(0, 10);
    const kept = await put({
      value: "0.1234",
      how: "certificate",
      plusMinus: "0.0004",
      restandardizeBy: day(9),
    });
    await put({ value: "0.0999", restandardizeBy: day(-3) });
    // Out of date the one, and the other nine times as strong as the method's: another solution.
    await put({ value: "0.9000", restandardizeBy: day(9) });
    const runId = await begin("acid-by-base");
    const begun = await record(runId);
    const given = presentObservation(begun.stages[0]!.observations, "c_b", "given")!;
    expect(given).toMatchObject({ text: "0.1234", reason: "preselected from the shelf" });
    expect(begun.solutions).toMatchObject([{ solutionId: kept }]);
    expect(plain([isEmptyRun(begun), checkRecord(begun)])).toEqual([true, []]);
    await trial(runId, "determine", aliquot("V_a", "25.00", "25.00"));
    expect(plain(resultOf(await record(runId), "determine"))).toMatch(/^0\.1234/);
    const typed = await change(runId, {
      ...{ intent: "observe", id: newId(), stageKey: "determine", trial: null, symbol: "c_b", kind: "given" },
      ...{ text: "0.1100", supersedes: given.id, reason: null },
    });
    expect(plain(typed)).toMatchObject({ status: "done" });
    // The bottle's ± went with its value.
    const stage = (await record(runId)).stages[0]!;
    expect(presentObservation(stage.observations, "c_b", "given.plus-minus")).toBeNull();
    const [found] = evaluateRun(await record(runId)).stages;
    expect(plain(found?.kind === "titration" && found.leftOut)).toEqual([
      "the ± of concentration of the base, which is not stated",
    ]);
  });

  test("a ± that was typed goes with its value, too, and comes back with it", async () => {
    const runId = await begin("sulfur-dioxide");
    const say = async (kind: "given" | "given.plus-minus", text: string, reason: string | null = null) => {
      const { observations } = (await record(runId)).stages[0]!;
      const supersedes = presentObservation(observations, "c_i", kind)?.id ?? null;
      return change(runId, {
        ...{ intent: "observe", id: newId(), stageKey: "determine", trial: null, symbol: "c_i" },
        ...{ kind, text, supersedes, reason },
      });
    };
    const half = async () =>
      presentObservation((await record(runId)).stages[0]!.observations, "c_i", "given.plus-minus")?.text ??
      null;
    await say("given", "0.0102");
    await say("given.plus-minus", "0.0002");
    expect(await half()).toBe("0.0002");
    const over = await say("given", "0.0098", "misread");
    expect(await half()).toBeNull();
    const { undo } = (over as { state: { undo: { eventId: string } } }).state;
    await change(runId, { intent: "undo", eventId: undo.eventId });
    expect(await half()).toBe("0.0002");
  });
});

describe("runs and the shelf", () => {
  test("a run takes its titrant from the shelf, ± and all; typing another value drops the bottle's; undo brings it back", async () => {
    const id = await put({ how: "certificate", value: "0.1012", plusMinus: "0.0004" });
    const a = (await bottle(id)).solution.current!;
    const runId = await begin("acid-by-base");
    expect(plain(await take(runId, "determine", "c_b", a.id))).toMatchObject({ status: "done" });
    await trial(runId, "determine", aliquot("V_a", "25.00", "25.00"));
    const taken = await record(runId);
    expect(plain(resultOf(taken, "determine"))).toMatch(/^0\.1012/);
    expect(taken.solutions).toMatchObject([{ name: base.name, value: "0.1012", how: "certificate" }]);
    expect(plain(await take(runId, "determine", "c_b", a.id))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/why/),
    });
    const other = (await bottle(await put({ value: "0.2" }))).solution.current!;
    const answer = await take(runId, "determine", "c_b", other.id, "the other bottle");
    expect(plain(resultOf((answer as { state: { record: RunRecord } }).state.record, "determine"))).toMatch(
      /^0\.20/,
    );
    const { undo } = (answer as { state: { undo: { eventId: string } } }).state;
    await change(runId, { intent: "undo", eventId: undo.eventId });
    expect(resultOf(await record(runId), "determine")).toBe(resultOf(taken, "determine"));
  });

  test.each([
    ["a standard uncertainty", { how: "standardized", shape: "normal", plusMinus: "0.0004" }],
    ["a half width", { how: "certificate", shape: "rectangular", plusMinus: "0.0007" }],
  ] as const)(
    "what is typed over a bottle's value leaves nothing of its %s; undo brings bottle and ± back",
    async (_name, parts) => {
      const id = await put();
      const assignmentId = await assign(open.db, {
        solutionId: id,
        at: new Date(),
        person: "bench 1",
        value: "0.1012",
        unit: "mol/L",
        sources: [],
        ...parts,
      });
      const runId = await begin("acid-by-base");
      await take(runId, "determine", "c_b", assignmentId);
      await trial(runId, "determine", aliquot("V_a", "25.00", "25.00"));
      const before = await record(runId);
      const [stage] = before.stages;
      const value = presentObservation(stage!.observations, "c_b", "given")!;
      const typed = await change(runId, {
        intent: "observe",
        id: newId(),
        stageKey: "determine",
        trial: null,
        symbol: "c_b",
        kind: "given",
        text: "0.2000",
        supersedes: value.id,
        reason: "misread",
      });
      expect(plain(typed)).toMatchObject({ status: "done" });
      const over = await record(runId);
      const present = (r: RunRecord, kind: ObservationKind) =>
        presentObservation(r.stages[0]!.observations, "c_b", kind);
      expect(present(over, "given")).toMatchObject({ text: "0.2000" });
      expect([present(over, "given.plus-minus"), present(over, "given.standard-uncertainty")]).toEqual([
        null,
        null,
      ]);
      expect(checkRecord(over)).toEqual([]);

      const { undo } = (typed as { state: { undo: { eventId: string } } }).state;
      expect(plain(await change(runId, { intent: "undo", eventId: undo.eventId }))).toMatchObject({
        status: "done",
      });
      const back = await record(runId);
      expect(present(back, "given")).toMatchObject({ text: "0.1012", assignment: assignmentId });
      expect(resultOf(back, "determine")).toBe(resultOf(before, "determine"));
      expect(checkRecord(back)).toEqual([]);
    },
  );

  test("a bottle of the other kind of ± taken instead, and that undone", async () => {
    const normal = (await bottle(await put({ how: "certificate", value: "0.1012", plusMinus: "0.0004" })))
      .solution;
    const other = await assign(open.db, {
      solutionId: await put(),
      at: new Date(),
      person: "bench 1",
      how: "standardized",
      shape: "normal",
      value: "0.1100",
      plusMinus: "0.0001",
      unit: "mol/L",
      sources: [],
    });
    const runId = await begin("acid-by-base");
    await take(runId, "determine", "c_b", normal.current!.id);
    await trial(runId, "determine", aliquot("V_a", "25.00", "25.00"));
    const first = resultOf(await record(runId), "determine");
    const answer = await take(runId, "determine", "c_b", other, "restandardized");
    expect(plain(resultOf(await record(runId), "determine"))).toMatch(/^0\.1100/);
    const { undo } = (answer as { state: { undo: { eventId: string } } }).state;
    expect(plain(await change(runId, { intent: "undo", eventId: undo.eventId }))).toMatchObject({
      status: "done",
    });
    const back = await record(runId);
    expect([resultOf(back, "determine"), checkRecord(back)]).toEqual([first, []]);
    expect(
      back.stages[0]!.observations.filter((o) => o.assignment === normal.current!.id).length,
    ).toBeGreaterThan(2);
  });

  test("refuses a bottle of something else", async () => {
    const acid = (await bottle(await put({ formula: "HCl", name: "acid" }))).solution.current!;
    expect(plain(await take(await begin("acid-by-base"), "determine", "c_b", acid.id))).toMatchObject({
      status: "refused",
      message: "acid is not what this stage needs",
    });
  });

  const standardize = async (final: string, solutionId: string | null) => {
    const runId = await begin("base-by-phthalate-then-acid");
    await trial(runId, "standardize", [
      ["m", "mass.before", "2.5106"],
      ["m", "mass.after", "2.0000"],
      ["V", "burette.initial", "0.00"],
      ["V", "burette.final", final],
    ]);
    const answer = await change(runId, {
      intent: "shelve",
      stageKey: "standardize",
      solutionId,
      name: "base of the morning",
      restandardizeBy: "2026-12-05",
    });
    return { runId, answer };
  };

  test("a standardization goes to the shelf; a later one leaves finished runs as they are, and they can be recomputed", async () => {
    const first = await standardize("25.00", null);
    expect(plain(first.answer)).toMatchObject({ status: "done" });
    const [put_] = (await shelfOfRun(open.db, await record(first.runId))).shelved;
    const id = put_!.solutionId;
    const a = (await bottle(id)).solution.current!;
    expect(a).toMatchObject({
      how: "standardized",
      shape: "normal",
      runTitle: "base-by-phthalate-then-acid",
    });
    expect(Number(a.value)).toBeCloseTo(0.5106 / 204.222 / 0.025, 6);

    const runId = await begin("acid-by-base");
    await take(runId, "determine", "c_b", a.id);
    await trial(runId, "determine", aliquot("V_a", "25.00", "25.00"));
    expect(plain(await change(runId, { intent: "finish" }))).toMatchObject({ status: "done" });
    const kept = resultOf(await record(runId), "determine");
    expect(plain(await change(runId, { intent: "recompute" }))).toMatchObject({ status: "refused" });

    await standardize("24.00", id);
    expect((await bottle(id)).assignments).toHaveLength(2);
    expect((await shelfOfRun(open.db, await record(runId))).newer).toMatchObject([{ was: a.value }]);
    expect(resultOf(await record(runId), "determine")).toBe(kept);
    expect(plain(await change(runId, { intent: "recompute" }))).toMatchObject({ status: "done" });
    const { recomputations } = await shelfOfRun(open.db, await record(runId));
    expect(plain(recomputations)).toMatchObject([
      { changes: [{ before: kept, after: expect.stringMatching(/^0\.104/) }] },
    ]);
    expect(resultOf(await record(runId), "determine")).toBe(kept);
  });

  test("the same result does not go to the same bottle twice, and an open set not at all", async () => {
    const first = await standardize("25.00", null);
    const [put_] = (await shelfOfRun(open.db, await record(first.runId))).shelved;
    const again = (solutionId: string | null, runId = first.runId) =>
      change(runId, {
        intent: "shelve",
        stageKey: "standardize",
        solutionId,
        name: "x",
        restandardizeBy: "",
      });
    expect(plain(await again(put_!.solutionId))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/already/),
    });
    expect(plain(await again(null, await begin("base-by-phthalate-then-acid")))).toMatchObject({
      status: "malformed",
    });
  });

  test("a run that is finished again with another value renews the bottle that it fixed", async () => {
    const { runId } = await standardize("25.00", null);
    const [put_] = (await shelfOfRun(open.db, await record(runId))).shelved;
    await trial(runId, "determine", aliquot("V_a", "25.00", "20.00"));
    await change(runId, { intent: "finish" });
    expect((await bottle(put_!.solutionId)).assignments).toHaveLength(1);
    await change(runId, { intent: "reopen" });
    const final = (await record(runId)).stages[0]!.trials[0]!.observations.find(
      (o) => o.kind === "burette.final",
    )!;
    await change(runId, {
      intent: "observe",
      id: newId(),
      stageKey: "standardize",
      trial: { id: (await record(runId)).stages[0]!.trials[0]!.id, kind: "fine" },
      symbol: "V",
      kind: "burette.final",
      text: "24.00",
      supersedes: final.id,
      reason: "misread",
    });
    await change(runId, { intent: "finish" });
    const { assignments } = await bottle(put_!.solutionId);
    expect(assignments.map((a) => Number(a.value).toFixed(4))).toEqual(["0.1042", "0.1000"]);
  });

  test("a bottle cannot stand on itself by way of a standard that it fixed", async () => {
    const { runId } = await standardize("25.00", null);
    const baseId = (await shelfOfRun(open.db, await record(runId))).shelved[0]!.solutionId;
    const shelve = (run: string, solutionId: string | null) =>
      change(run, { intent: "shelve", stageKey: "determine", solutionId, name: "acid", restandardizeBy: "" });

    const acidRun = await begin("acid-by-base");
    await take(acidRun, "determine", "c_b", (await bottle(baseId)).solution.current!.id);
    await trial(acidRun, "determine", aliquot("V_a", "25.00", "25.00"));
    expect(plain(await shelve(acidRun, baseId))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/not what this stage standardizes/),
    });
    expect(plain(await shelve(acidRun, null))).toMatchObject({ status: "done" });
    const acidId = (await shelfOfRun(open.db, await record(acidRun))).shelved[0]!.solutionId;

    const back = await begin("base-by-acid");
    await take(back, "determine", "c_a", (await bottle(acidId)).solution.current!.id);
    await trial(back, "determine", aliquot("V_b", "25.00", "25.10"));
    expect(plain(await shelve(back, baseId))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/would depend on itself: S-\d+, acid/),
    });
    expect((await bottle(baseId)).assignments).toHaveLength(1);
  });
});
