import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  clockText,
  durationText,
  planStagger,
  punctuality,
  type StaggerRequest,
  timerState,
  type Timing,
} from ".";
import { inEnglish } from "../text";
import { plain } from "../testing/plain";

const at = (seconds: number) => new Date(Date.UTC(2026, 10, 26, 9) + 1000 * seconds).toISOString();
const ms = (seconds: number) => Date.parse(at(seconds));
const timing = (change: Partial<Timing> = {}): Timing => ({
  counts: "for",
  seconds: 900,
  plannedAt: null,
  startedAt: at(0),
  endedAt: null,
  ...change,
});

describe("a timer", () => {
  test("is planned, runs, is over, and ends, all by one clock", () => {
    const planned = timing({ startedAt: null, plannedAt: at(120) });
    expect(timerState(planned, ms(0))).toEqual({ state: "planned", toStart: 120 });
    expect(timerState(planned, ms(150))).toEqual({ state: "planned", toStart: -30 });
    expect(timerState(timing(), ms(600))).toEqual({ state: "running", elapsed: 600, left: 300 });
    expect(timerState(timing(), ms(1000))).toMatchObject({ left: -100 });
    expect(timerState(timing({ endedAt: at(910) }), ms(5000))).toEqual({ state: "ended", elapsed: 910 });
    // The clock was set back by an hour: nothing runs backwards.
    expect(timerState(timing(), ms(-3600))).toEqual({ state: "running", elapsed: 0, left: 900 });
  });

  test.each([
    ["for", 900, "on time", 0],
    ["for", 940, "on time", 40],
    ["for", 1000, "late", 100],
    ["for", 840, "early", 60],
    // What must be over soon is never too soon.
    ["within", 60, "on time", 840],
    ["within", 1020, "late", 120],
  ] as const)("that counts %s 15 min and took %d s came %s, by %d s", (counts, took, how, bySeconds) => {
    expect(punctuality(timing({ counts, endedAt: at(took) }))).toEqual({ how, bySeconds });
  });

  test("of a color, or one that runs, is neither early nor late", () => {
    expect(punctuality(timing())).toBeNull();
    expect(punctuality(timing({ counts: "persist", endedAt: at(3) }))).toBeNull();
  });

  test.each([
    [245, "4:05", "4 min 5 s"],
    [0, "0:00", "0 s"],
    [29.2, "0:30", "29 s"],
    [-61, "−1:01", "0 s"],
    [3720, "1:02:00", "1 h 2 min"],
  ])("%d s is shown as %s and said as %s", (seconds, clock, words) => {
    expect(clockText(seconds)).toBe(clock);
    if (seconds >= 0) expect(durationText(seconds)).toBe(words);
  });
});

describe("staggered flasks", () => {
  const request: StaggerRequest = { flasks: 3, standing: 900, titration: 300, starting: 60, available: null };
  const message = (r: StaggerRequest) => {
    const plan = planStagger(r);
    return plan.ok ? "" : plan.problem.message;
  };

  test("three that stand 15 min, 5 min of titration each: all started before the first is titrated", () => {
    const plan = planStagger(request);
    // By hand: starts at 0, 5 and 10 min; each is ready a minute of starting and 15 of standing later.
    expect(plain(plan)).toMatchObject({
      ok: true,
      value: { every: 300, how: "first all starts", total: 600 + 60 + 900 + 300 },
    });
    expect(plan.ok && plan.value.flasks.map((f) => [f.startAt, f.titrateAt])).toEqual([
      [0, 960],
      [300, 1260],
      [600, 1560],
    ]);
  });

  test("many are started in turn, between two titrations", () => {
    const plan = planStagger({ ...request, flasks: 8 });
    expect(plain(plan)).toMatchObject({ ok: true, value: { how: "in turn" } });
  });

  test("in every plan each flask stands just its time and nobody needs three hands", () => {
    const sizes = {
      flasks: fc.integer({ min: 1, max: 12 }),
      standing: fc.integer({ min: 30, max: 3600 }),
      titration: fc.integer({ min: 30, max: 1200 }),
      starting: fc.integer({ min: 0, max: 300 }),
    };
    fc.assert(
      fc.property(fc.record(sizes), (of) => {
        const plan = planStagger({ ...of, available: null });
        if (!plan.ok) throw new Error(inEnglish(plan.problem.message));
        const { flasks } = plan.value;
        expect(flasks).toHaveLength(of.flasks);
        for (const f of flasks) {
          expect(f.titrateAt - f.startAt - of.starting).toBeCloseTo(of.standing, 6);
          expect(f.endAt - f.titrateAt).toBeCloseTo(of.titration, 6);
        }
        const busy = flasks
          .flatMap((f) => [[f.startAt, f.startAt + of.starting] as const, [f.titrateAt, f.endAt] as const])
          .sort((a, b) => a[0] - b[0] || a[1] - b[1]);
        busy.slice(1).forEach(([from], i) => expect(from).toBeGreaterThanOrEqual(busy[i]![1] - 1e-6));
      }),
      { numRuns: 300 },
    );
  });

  test("what cannot be done is told, with the most that can", () => {
    // Five, by hand: every 7 min, so that starts at 21 and 28 fall behind titrations from 16 to 21 and 23 to 28; 28 + 21.
    // Two flasks: 5 + 1 + 15 + 5 = 26 min.
    expect(plain(message({ ...request, flasks: 5, available: 1600 }))).toBe(
      "5 flasks need 49 min, and there are only 26 min 40 s. 2 flasks can be done, in 26 min.",
    );
    expect(plain(message({ ...request, flasks: 2, available: 600 }))).toMatch(/Not even one fits: .* 15 min/);
    expect(planStagger({ ...request, available: 31 * 60 }).ok).toBe(true);
  });

  test.each([
    [{ flasks: 0 }, /1 to 24/],
    [{ flasks: 2.5 }, /1 to 24/],
    [{ standing: NaN }, /how long each flask must stand/],
    [{ titration: 0 }, /how long one titration takes/],
    [{ starting: -1 }, /cannot be negative/],
  ])("%j is refused in words", (change, words) => {
    expect(plain(message({ ...request, ...change }))).toMatch(words);
  });
});
