import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as newId } from "uuid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { evaluateRun } from "~/core/evaluate";
import { maybeMarks } from "~/core/method";
import type { TitrationEvaluation } from "~/core/stages";
import type { RunChanged } from "~/protocol/answers";
import { type RunRequest } from "~/protocol/requests";
import { afterStep } from "~/protocol/step";
import { type StartTimer } from "~/core/change";
import { readRunRecord } from "~/formats/run-report";
import { inspectClock } from "./clock";
import { type OpenDatabase, openDatabase } from "./lab/open-database";
import { listen } from "./live";
import { currentHouseRules } from "./queries/house-rules";
import { changeRun } from "./commands/change-run";
import { setClockRight } from "./commands/lab";
import { loadRunState } from "./queries/stored-run";
import { runningTimers } from "./queries/timers";
import { trailOf } from "./queries/trail";
import { benchOn, reading, wholeFlask } from "./tests/bench";
import { plain } from "~/core/testing/plain";

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
});
afterAll(() => open.close());
const { begin, change, record } = benchOn(() => open);

const at = (runId: string, request: RunRequest, seconds: number) =>
  changeRun(open.db, runId, request, new Date(Date.UTC(2026, 10, 26, 9) + 1000 * seconds));

const undo = async (runId: string) => {
  const state = await loadRunState(open.db, runId);
  return change(runId, { intent: "undo", eventId: state!.undo!.eventId });
};

const timer = (change: Partial<StartTimer> = {}): StartTimer => ({
  intent: "start-timer",
  id: newId(),
  stageKey: "standardize",
  trialId: newId(),
  what: "let it stand",
  flask: "trial 1",
  counts: "for",
  seconds: 900,
  strict: true,
  inSeconds: null,
  ...change,
});

const stage = async (runId: string) => evaluateRun(await record(runId)).stages[0] as TitrationEvaluation;
const timersOf = async (runId: string) => (await record(runId)).stages[0]?.timers ?? [];

describe("timers", () => {
  test("run by the server's clock, are seen by all screens, and end once", async () => {
    const runId = await begin("Timed", new Date(Date.UTC(2026, 10, 26, 8)));
    const request = timer();
    for (const change of wholeFlask(request.trialId!, "2.1000", "25.00")) await at(runId, change, 0);
    expect(plain(await at(runId, request, 0))).toMatchObject({ status: "done" });
    expect(plain(await at(runId, request, 1))).toMatchObject({ status: "done" });
    const seen = (await runningTimers(open.db)).timers.filter((t) => t.runId === runId);
    expect(seen).toMatchObject([
      { id: request.id, runTitle: "Timed", stageKey: "standardize", startedAt: "2026-11-26T09:00:00.000Z" },
    ]);
    const end = { intent: "end-timer", timerId: request.id, outcome: "done" } as const;
    await at(runId, end, 1020);
    await at(runId, end, 2000);
    expect(await timersOf(runId)).toMatchObject([{ endedAt: "2026-11-26T09:17:00.000Z", outcome: "done" }]);
    expect(plain((await stage(runId)).trials[0]?.cautions.map((c) => c.message))).toEqual([
      "let it stand: 17 min, 2:00 more than 15 min",
    ]);
    expect(await runningTimers(open.db)).toMatchObject({ timers: [] });
  });

  test("set twice for one flask is refused in words; for another flask it is not", async () => {
    const runId = await begin();
    const first = timer();
    await change(runId, first);
    expect(plain(await change(runId, timer({ trialId: first.trialId })))).toEqual({
      status: "refused",
      message: "Trial 1 is timed already: let it stand. End that timer before you set it again",
    });
    expect(plain(await change(runId, timer({ flask: "trial 2" })))).toMatchObject({ status: "done" });
    expect(await timersOf(runId)).toHaveLength(2);
  });

  test("planned ones begin when someone starts them, once", async () => {
    const runId = await begin("Staggered", new Date(Date.UTC(2026, 10, 26, 8)));
    const planned = timer({ inSeconds: 300 });
    await at(runId, planned, 0);
    expect(await timersOf(runId)).toMatchObject([{ plannedAt: "2026-11-26T09:05:00.000Z", startedAt: null }]);
    await at(runId, { intent: "begin-timer", timerId: planned.id }, 310);
    expect(await timersOf(runId)).toMatchObject([{ startedAt: "2026-11-26T09:05:10.000Z" }]);
    expect(plain(await at(runId, { intent: "begin-timer", timerId: planned.id }, 320))).toMatchObject({
      status: "refused",
      message: "This timer runs already",
    });
    expect(plain(await at(runId, { intent: "begin-timer", timerId: newId() }, 320))).toMatchObject({
      status: "missing",
    });
  });

  test("that waited for the server began when they were started, and end in a run that was archived meanwhile", async () => {
    const runId = await begin("Held", new Date(Date.UTC(2026, 10, 26, 8)));
    const held = timer({ heldSeconds: 120 });
    await at(runId, held, 600);
    expect(await timersOf(runId)).toMatchObject([{ startedAt: "2026-11-26T09:08:00.000Z" }]);
    await at(runId, { intent: "archive" }, 700);
    expect(
      plain(await at(runId, { intent: "end-timer", timerId: held.id, outcome: "dropped" }, 800)),
    ).toMatchObject({ status: "done" });
  });

  test("are no change that undo takes back", async () => {
    const runId = await begin();
    await change(runId, reading(newId(), "m", "mass.before", "2.6106"));
    await change(runId, timer());
    expect(plain((await loadRunState(open.db, runId))?.undo?.description)).toBe("boat with solid 2.6106");
  });
});

test("an end whose color faded becomes a mark, the trial is open again, and undo brings the end back", async () => {
  const runId = await begin();
  const trialId = newId();
  for (const one of wholeFlask(trialId, "2.1000", "25.00")) await change(runId, one);
  const watch = timer({ trialId, counts: "persist", seconds: 30, strict: false });
  await change(runId, watch);
  const request = {
    intent: "faded",
    stageKey: "standardize",
    trialId,
    markId: newId(),
    seconds: 12,
    timerId: watch.id,
  } as const;
  expect(plain(await change(runId, request))).toMatchObject({ status: "done" });
  const open1 = (await stage(runId)).current;
  expect(open1?.id).toBe(trialId);
  expect(maybeMarks(open1!.record.observations, "V")).toMatchObject([
    { text: "25.00", reason: "faded after 12 s" },
  ]);
  expect(await timersOf(runId)).toMatchObject([{ outcome: "faded" }]);
  expect(plain(await change(runId, request))).toMatchObject({ status: "refused" });
  await change(runId, reading(trialId, "V", "burette.final", "25.10"));
  expect(plain((await stage(runId)).trials[0])).toMatchObject({ titerMl: expect.closeTo(25.1, 9) });
  await undo(runId);
  await undo(runId);
  const back = (await stage(runId)).trials[0]!;
  expect([back.titerMl, maybeMarks(back.record.observations, "V")]).toEqual([25, []]);
});

describe("two readings for one field", () => {
  test("that say the same are one; that differ are told with the one that was first", async () => {
    const runId = await begin();
    const trialId = newId();
    await change(runId, reading(trialId, "V", "burette.initial", "0.10", { person: "bench 2" }));
    expect(plain(await change(runId, reading(trialId, "V", "burette.initial", "0.10")))).toMatchObject({
      status: "done",
    });
    expect(plain(await change(runId, reading(trialId, "V", "burette.initial", "0.20")))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/read as 0.10 meanwhile/),
      present: { text: "0.10", person: "bench 2" },
    });
    expect((await stage(runId)).trials[0]?.record.observations).toHaveLength(1);
  });

  test("a reading that waited keeps the time when it was read, but none before the run began", async () => {
    const runId = await begin("Held", new Date(Date.UTC(2026, 10, 26, 8, 59)));
    const trialId = newId();
    await at(runId, reading(trialId, "m", "mass.before", "2.6106", { heldSeconds: 40 }), 60);
    await at(runId, reading(trialId, "m", "mass.after", "2.1000", { heldSeconds: 86_400 }), 60);
    expect((await stage(runId)).trials[0]?.record.observations.map((o) => o.at)).toEqual([
      "2026-11-26T09:00:20.000Z",
      "2026-11-26T08:59:00.000Z",
    ]);
  });

  test("by an instrument, it says so", async () => {
    const runId = await begin();
    await change(runId, reading(newId(), "m", "mass.before", "2.6106", { source: "instrument" }));
    expect((await stage(runId)).trials[0]?.record.observations[0]?.source).toBe("instrument");
  });
});

test("house rules for one run leave those of the lab alone, are refused when they contradict, and are undone", async () => {
  const runId = await begin();
  const agreement = { rule: "n-within", replicates: 2, withinMl: "0.20" } as const;
  const rules = { ...defaultHouseRules, agreement };
  expect(plain(await change(runId, { intent: "rules", rules, reason: "a short lesson" }))).toMatchObject({
    status: "done",
  });
  expect((await record(runId)).houseRules).toEqual(rules);
  expect((await currentHouseRules(open.db)).data).toEqual(defaultHouseRules);
  const wrong = { ...rules, agreement: { ...agreement, withinMl: "0.001" } };
  expect(plain(await change(runId, { intent: "rules", rules: wrong, reason: "x" }))).toMatchObject({
    status: "refused",
    message: expect.stringMatching(/cannot agree within 0.001 mL/),
  });
  await undo(runId);
  expect((await record(runId)).houseRules).toEqual(defaultHouseRules);
  // The rules of the run go with it.
  const empty = await begin();
  await change(empty, { intent: "rules", rules, reason: "x" });
  expect(plain(await change(empty, { intent: "delete" }))).toMatchObject({ status: "done", state: null });
});

test("the trail tells who did what, where, from what to what and why, and what was undone", async () => {
  const runId = await begin();
  const trialId = newId();
  const [first] = wholeFlask(trialId, "2.1000", "25.00");
  for (const one of wholeFlask(trialId, "2.1000", "25.00")) await change(runId, one);
  const final = (await stage(runId)).trials[0]!.record.observations.at(-1)!;
  const correction = {
    supersedes: final.id,
    reason: "misread",
    person: "Imre",
    source: "instrument" as const,
  };
  await change(runId, reading(trialId, "V", "burette.final", "25.10", correction));
  await change(runId, { intent: "strike", trialId, reason: "overshot" });
  await undo(runId);
  await change(runId, { intent: "rename", title: "Rinse acid", sample: "R-2", bench: "bench 1" });
  const lines = await trailOf(open.db, await record(runId));
  expect(plain(lines)).toMatchObject([
    {
      what: "run renamed",
      from: "Rinse acid, R-1, bench 1",
      to: "Rinse acid, R-2, bench 1",
      undone: null,
    },
    { what: "trial 1 struck out", why: "overshot", undone: { person: "bench 1" } },
    {
      what: "final reading corrected, by instrument",
      where: "Standardize the base, trial 1",
      person: "Imre",
      from: "25.00 mL",
      to: "25.10 mL",
      why: "misread",
    },
    { what: "final reading", from: null, to: "25.00 mL" },
    { what: "initial reading", to: "0.00 mL" },
    { what: "boat after transfer", to: "2.1000 g" },
    { what: "boat with solid", to: `${first!.text} g`, person: "bench 1" },
  ]);
});

test("each change is told to whoever listens, after it was written, with the device that made it", async () => {
  const runId = await begin();
  const received: RunChanged[] = [];
  const stop = listen((message) => "runId" in message && received.push(message));
  const seen = (await loadRunState(open.db, runId))!;
  const before = seen.revision;
  await changeRun(open.db, runId, reading(newId(), "m", "mass.before", "2.6106"), new Date(), "tablet");
  await changeRun(open.db, runId, timer(), new Date(), "phone");
  const one = (await runningTimers(open.db)).timers.filter((t) => t.runId === runId);
  expect(one).toHaveLength(1);
  // A change that was refused is none.
  await changeRun(open.db, runId, { intent: "strike", trialId: newId(), reason: "x" }, new Date(), "phone");
  // The timers of a closed run are shown no more, and again when it is open.
  const running = async () => (await runningTimers(open.db)).timers.filter((t) => t.runId === runId).length;
  await changeRun(open.db, runId, { intent: "archive" }, new Date(), "phone");
  expect(await running()).toBe(0);
  await changeRun(open.db, runId, { intent: "reopen" }, new Date(), "phone");
  expect(await running()).toBe(1);
  stop();
  await change(runId, reading(newId(), "m", "mass.before", "2.6106"));
  expect(received.map(({ step: _, ...told }) => told)).toEqual([
    { runId, timers: false, device: "tablet" },
    // All screens show them, and need not ask.
    { runId, timers: one, device: "phone" },
    { runId, timers: [], device: "phone" },
    { runId, timers: one, device: "phone" },
  ]);
  // Who hears each of them has what the server had then, and what did not change is the same object.
  const shown = received.reduce((now, { step }) => afterStep(now, step!)!, seen);
  expect(shown.revision).toBe(before + 4);
  expect(shown.record.status).toBe("open");
  expect(shown.record.stages[0]!.trials.flatMap((t) => t.observations.map((o) => o.text))).toEqual([
    "2.6106",
  ]);
  expect(shown.record.method).toBe(seen.record.method);
  expect(shown.record.stages[1]).toBe(seen.record.stages[1]);
  // One that was missed is noticed, not guessed.
  expect(afterStep(seen, received[1]!.step!)).toBeNull();
  expect((await loadRunState(open.db, runId))!.revision).toBe(before + 5);
});

describe("a clock that was set back", () => {
  test("is told; readings and undo stay in the order in which they were written", async () => {
    await setClockRight(open.db, "MB", null, new Date(Date.UTC(2026, 10, 26, 7)));
    const runId = await begin("Late", new Date(Date.UTC(2026, 10, 26, 8)));
    const trialId = newId();
    await at(runId, reading(trialId, "m", "mass.before", "2.6106"), 0);
    // Ids are made by the devices: one of them has the wrong time, too.
    const early = newId({ msecs: Date.UTC(2020, 0, 1) });
    await at(runId, { ...reading(trialId, "m", "mass.after", "2.1000"), id: early }, -3600);
    const now = new Date(Date.UTC(2026, 10, 26, 7));
    expect((await stage(runId)).trials[0]?.record.observations.map((o) => o.text)).toEqual([
      "2.6106",
      "2.1000",
    ]);
    expect(plain((await loadRunState(open.db, runId))?.undo?.description)).toMatch(/boat after transfer/);
    expect(await inspectClock(open.db, now)).toMatch(/stands 2 h before the latest time/);
    // Saved by the wrong clock it does not make that clock right.
    await at(runId, reading(trialId, "V", "burette.initial", "0.00"), -3000);
    expect(await inspectClock(open.db, now)).toMatch(/stands 2 h before/);
    expect(await inspectClock(open.db, new Date(Date.UTC(2026, 10, 26, 9)))).toBeNull();
    // It had stood too far ahead: someone says that it is right now.
    await setClockRight(open.db, "MB", null, now);
    expect(await inspectClock(open.db, now)).toBeNull();
  });
});

test("a run with timers, marks and rules of its own goes out and comes back as it was", async () => {
  const runId = await begin();
  const trialId = newId();
  for (const one of wholeFlask(trialId, "2.1000", "25.00")) await change(runId, one);
  await change(runId, reading(trialId, "V", "burette.maybe", "24.90"));
  await change(runId, reading(trialId, "V", "burette.maybe", "24.95"));
  await change(runId, timer({ trialId }));
  const out = await record(runId);
  expect(plain(readRunRecord(JSON.parse(JSON.stringify(out))))).toEqual({ record: out });
});
