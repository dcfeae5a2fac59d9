import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as newId } from "uuid";
import { applyChange, type RunChange } from "~/core/change";
import { changeContext } from "~/core/evaluate";
import { randomStream } from "~/core/montecarlo";
import { mustHold } from "~/core/result";
import type { RunRecord } from "~/core/run";
import { randomChange } from "~/core/testing/random-change";
import type { RunState, RunStep } from "~/protocol/answers";
import { afterStep } from "~/protocol/step";
import { withWaiting } from "~/protocol/waiting";
import { changeRun } from "./commands/change-run";
import { startRun } from "./commands/start-run";
import { openDatabase, type OpenDatabase } from "./lab/open-database";
import { loadRunState } from "./queries/stored-run";
import { benchOn, wholeFlask } from "./tests/bench";
import { plain } from "~/core/testing/plain";

let open: OpenDatabase;
const { begin, change } = benchOn(() => open);
beforeAll(async () => (open = await openDatabase(null)));
afterAll(async () => open.close());

/** A record without what browser and server make each for themselves: ids of what a change writes beside what it names, and times. */
function alike(record: RunRecord): unknown {
  const ids = new Map<string, number>();
  const instants = new Set(["at", "startedAt", "endedAt", "plannedAt", "finishedAt"]);
  const id = (value: string) => {
    const there = ids.get(value) ?? ids.size;
    ids.set(value, there);
    return `#${there}`;
  };
  const named = new Set(["id", "supersedes", "trialId"]);
  const same = (value: unknown, key = ""): unknown => {
    if (Array.isArray(value)) return value.map((one) => same(one));
    if (typeof value === "string") return instants.has(key) ? "then" : named.has(key) ? id(value) : value;
    if (typeof value !== "object" || value === null) return value;
    const entries = Object.entries(value).filter(([name, of]) => name !== "method" && of !== undefined);
    return Object.fromEntries(
      entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, of]) => [name, same(of, name)]),
    );
  };
  return same(record);
}

const inBrowser = (record: RunRecord) =>
  changeContext({ now: new Date().toISOString(), person: record.bench, newId: (of) => `${of}'` });

describe("browser and server make the same of a change", () => {
  const shapes = ["base-by-phthalate-then-acid", "phosphate-as-molybdenum-blue", "fading-of-a-dye"];

  test.each(shapes)("%s: two devices, each with what it saw last, one after the other", async (methodId) => {
    const random = randomStream(20261128);
    const hand = { random, newId };
    let made = 0;
    for (let sequence = 0; sequence < 4; sequence++) {
      const about = { title: "Rinse acid", sample: "", bench: "bench 1" };
      const runId = mustHold(await startRun(open.db, { intent: "start", methodId, ...about }));
      let state = (await loadRunState(open.db, runId))!;
      const seen = [state.record, state.record];
      for (let i = 0; i < 30; i++) {
        const device = random.uniform() < 0.5 ? 0 : 1;
        const asked = randomChange(seen[device]!, hand);
        const expected = applyChange(state.record, asked, inBrowser(state.record));
        const answer = await changeRun(open.db, runId, asked);
        const now = (await loadRunState(open.db, runId))!;
        if (answer.status === "done") {
          // What the answer says is what stands in the database.
          expect(answer.state).toEqual(now);
          // A screen that had the run before has it now, from the step alone.
          if (answer.step) {
            const sent = JSON.parse(JSON.stringify([state, answer.step])) as [RunState, RunStep];
            expect(afterStep(...sent)).toEqual(JSON.parse(JSON.stringify(now)));
          }
          expect(expected.ok).toBe(true);
          const after = expected.ok && expected.value ? expected.value.record : state.record;
          expect(alike(now.record)).toEqual(alike(after));
          if (expected.ok && expected.value) made++;
        } else {
          expect(expected).toEqual({ ok: false, problem: answer });
          expect(now).toEqual(state);
        }
        state = now;
        // The device that asked is told; the other one hears of it now or later.
        seen[device] = state.record;
        if (random.uniform() < 0.6) seen[1 - device] = state.record;
      }
    }
    expect(made).toBeGreaterThan(60);
  });

  test("what waited in a browser stands in the run afterwards as it was shown before", async () => {
    const random = randomStream(7);
    for (let sequence = 0; sequence < 5; sequence++) {
      const runId = await begin();
      const { record } = (await loadRunState(open.db, runId))!;
      const waiting: { request: RunChange; at: number }[] = [];
      for (let i = 0; waiting.length < 12 && i < 100; i++) {
        const request = randomChange(withWaiting(record, waiting), { random, newId });
        if (request.intent === "observe" || request.intent.endsWith("timer"))
          waiting.push({ request, at: Date.now() });
      }
      const shown = withWaiting(record, waiting);
      for (const { request } of waiting) await change(runId, request);
      expect(alike((await loadRunState(open.db, runId))!.record)).toEqual(alike(shown));
      expect(shown.stages.flatMap((s) => s.trials).length).toBeGreaterThan(0);
    }
  });
});

test("a saved reading takes eight statements at most, with begin and commit", async () => {
  const runId = await begin();
  const statements: string[] = [];
  const { client } = open;
  const transaction = client.transaction.bind(client);
  client.transaction = ((work: Parameters<typeof transaction>[0]) => {
    statements.push("begin", "commit");
    return transaction((tx) => {
      const own = tx.query.bind(tx);
      tx.query = ((sql: string, ...rest: []) => {
        statements.push(sql);
        return own(sql, ...rest);
      }) as typeof tx.query;
      return work(tx);
    });
  }) as typeof client.transaction;
  const counts: number[] = [];
  try {
    for (const request of wholeFlask(newId(), "2.1000", "25.00")) {
      statements.length = 0;
      expect(plain(await change(runId, request))).toMatchObject({ status: "done" });
      counts.push(statements.length);
    }
  } finally {
    client.transaction = transaction;
  }
  expect(Math.max(...counts)).toBeLessThanOrEqual(8);
  expect(Math.min(...counts)).toBeGreaterThan(4);
});
