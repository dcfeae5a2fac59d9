import { describe, expect, test } from "@jest/globals";
import { flask, runRecord } from "~/core/testing/build-record";
import { evaluateRun } from "~/core/evaluate";
import type { TitrationEvaluation } from "~/core/stages";
import type { RunRequest } from "./requests";
import type { Observe } from "../core/change";
import { canWait, withWaiting } from "./waiting";
import { plain } from "~/core/testing/plain";

const now = Date.UTC(2026, 10, 26, 9);
let made = 0;
const observe = (kind: Observe["kind"], text: string, change: Partial<Observe> = {}): Observe => ({
  intent: "observe",
  id: `waiting ${++made}`,
  stageKey: "standardize",
  trial: { id: "new", kind: "fine" },
  symbol: kind.startsWith("mass") ? "m" : "V",
  kind,
  text,
  supersedes: null,
  reason: null,
  ...change,
});
const kept = (requests: readonly RunRequest[]) =>
  requests.map((request, i) => ({ request, at: now + 1000 * i }));
const stageOf = (record: ReturnType<typeof runRecord>) =>
  evaluateRun(record).stages[0] as TitrationEvaluation;

describe("what waits in the browser", () => {
  const saved = runRecord([flask("2.6106", "2.1000", "0.00", "25.00")]);
  const whole = [
    observe("mass.before", "2.5901"),
    observe("mass.after", "2.1000"),
    observe("burette.initial", "0,10"),
    observe("burette.final", "24.11"),
  ];

  test("stands in the run as though it were saved, trial after trial, and the saved run is not touched", () => {
    const before = JSON.stringify(saved);
    const shown = withWaiting(saved, kept(whole));
    expect(plain(stageOf(shown).trials.map((t) => [t.name, t.titerMl]))).toEqual([
      ["1", 25],
      ["2", expect.closeTo(24.01, 9)],
    ]);
    expect(shown.stages[0]?.trials[1]?.observations.map((o) => [o.text, o.at])).toEqual([
      ["2.5901", "2026-11-26T09:00:00.000Z"],
      ["2.1000", "2026-11-26T09:00:01.000Z"],
      ["0,10", "2026-11-26T09:00:02.000Z"],
      ["24.11", "2026-11-26T09:00:03.000Z"],
    ]);
    expect(JSON.stringify(saved)).toBe(before);
  });

  test("is shown once while its answer is on the way back", () => {
    const half = withWaiting(saved, kept(whole.slice(0, 2)));
    expect(withWaiting(half, kept(whole.slice(0, 2)))).toEqual(half);
    expect(withWaiting(withWaiting(saved, kept(whole)), kept(whole)).stages[0]?.trials).toHaveLength(2);
  });

  test("a correction replaces what it corrects; a reading of the stage goes to the stage", () => {
    const [one] = saved.stages[0]!.trials;
    const final = one!.observations.at(-1)!;
    const correction = observe("burette.final", "25.10", {
      trial: { id: one!.id, kind: "fine" },
      supersedes: final.id,
      reason: "misread",
    });
    const purity = observe("purity", "99.90", { trial: null, symbol: "P" });
    const shown = withWaiting(saved, kept([correction, purity]));
    expect(stageOf(shown).trials[0]?.titerMl).toBeCloseTo(25.1, 9);
    expect(shown.stages[0]?.observations).toMatchObject([{ symbol: "P", value: "99.90", unit: "%" }]);
  });

  test("timers run on, by the server's clock", () => {
    const start: RunRequest = {
      intent: "start-timer",
      id: "t",
      stageKey: "standardize",
      trialId: "new",
      what: "stand",
      flask: "trial 2",
      counts: "for",
      seconds: 60,
      strict: false,
      inSeconds: null,
    };
    const requests: RunRequest[] = [start, { intent: "end-timer", timerId: "t", outcome: "done" }];
    const ahead = 3_600_000;
    expect(withWaiting(saved, kept(requests), ahead).stages[0]?.timers).toMatchObject([
      { startedAt: "2026-11-26T10:00:00.000Z", endedAt: "2026-11-26T10:00:01.000Z", outcome: "done" },
    ]);
    const planned = withWaiting(saved, kept([{ ...start, inSeconds: 90 }]));
    expect(planned.stages[0]?.timers).toMatchObject([
      { startedAt: null, plannedAt: "2026-11-26T09:01:30.000Z" },
    ]);
  });

  test("only what carries an id of its own may wait: the rest is said at once to be out of reach", () => {
    expect(whole.every(canWait)).toBe(true);
    expect(canWait({ intent: "finish" })).toBe(false);
    expect(canWait({ intent: "strike", trialId: "x", reason: "y" })).toBe(false);
  });

  test("what the method does not read is left out", () => {
    const odd = [observe("pH", "7.00"), observe("mass.before", "2.0000", { stageKey: "no such stage" })];
    expect(withWaiting(saved, kept(odd))).toEqual(saved);
  });
});
