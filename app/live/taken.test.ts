import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { applyChange } from "~/core/change";
import { changeContext } from "~/core/evaluate";
import { randomStream } from "~/core/montecarlo";
import { begunRun } from "~/core/testing/build-record";
import { randomChange } from "~/core/testing/random-change";
import type { RunState, RunStep } from "~/protocol/answers";
import { stepBetween } from "~/protocol/step";
import { mayBeOld, taken, type ScreenState, takenFirst } from "./taken";

/** The states of a run on the server, one change after the other. */
function statesOf(seed: number, changes: number): RunState[] {
  const random = randomStream(seed);
  let ids = 0;
  const newId = () => `id ${++ids}`;
  const states: RunState[] = [
    { record: begunRun(baseByPhthalateThenAcid), undo: null, redo: null, revision: 1 },
  ];
  while (states.length <= changes) {
    const { record, revision } = states.at(-1)!;
    const now = new Date(Date.parse(record.startedAt) + 60_000 * states.length).toISOString();
    const change = randomChange(record, { random, newId });
    const applied = applyChange(record, change, changeContext({ now, person: "bench 1", newId }));
    if (!applied.ok || !applied.value) continue;
    const undo = { eventId: newId(), description: applied.value.entry.description };
    states.push({ record: applied.value.record, undo, redo: null, revision: revision + 1 });
  }
  return states;
}

/** As it comes over the network. */
const sent = <T>(update: T): T => JSON.parse(JSON.stringify(update)) as T;

test("whatever order states and steps arrive in, doubled or lost, a screen shows one of the server's states, never goes back, and knows when it may be old", () => {
  const deliveries = fc.array(
    fc.record({ at: fc.nat({ max: 11 }), as: fc.constantFrom("step", "step", "state", "unsure" as const) }),
    { maxLength: 40 },
  );
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 500 }), deliveries, (seed, arriving) => {
      const states = statesOf(seed, 12);
      const [first] = states;
      let now: ScreenState = takenFirst(sent(first!));
      let latest = 1;
      for (const { at, as } of arriving) {
        const [before, after] = [states[at]!, states[at + 1]!];
        const was = now.state.revision;
        const update: RunState | RunStep | "unsure" =
          as === "unsure" ? as : sent(as === "step" ? stepBetween(before, after) : after);
        now = taken(now, update);
        if (update !== "unsure") latest = Math.max(latest, after.revision);
        expect(now.state.revision).toBeGreaterThanOrEqual(was);
        expect(sent(now.state)).toEqual(sent(states[now.state.revision - 1]));
        // Something newer was heard of and is not shown: it is not taken for the latest.
        if (latest > now.state.revision) expect(mayBeOld(now)).toBe(true);
      }
      // Asked for and told whole, it is sure again.
      now = taken(now, sent(states.at(-1)!));
      expect(mayBeOld(now)).toBe(false);
      expect(sent(now.state)).toEqual(sent(states.at(-1)));
    }),
    { numRuns: 60 },
  );
});

test("steps that arrive one after the other are enough, and leave what did not change as the same objects", () => {
  const states = statesOf(7, 30);
  let now = takenFirst(sent(states[0]!));
  states.slice(1).forEach((after, i) => {
    const before = now.state;
    now = taken(now, sent(stepBetween(states[i]!, after)));
    expect(mayBeOld(now)).toBe(false);
    expect(sent(now.state)).toEqual(sent(after));
    expect(now.state.record.method).toBe(before.record.method);
    after.record.stages.forEach((stage, j) => {
      if (stage === states[i]!.record.stages[j])
        expect(now.state.record.stages[j]).toBe(before.record.stages[j]);
    });
  });
  // The same again, or older, is nothing new.
  expect(taken(now, sent(states[3]!))).toBe(now);
  expect(taken(now, sent(stepBetween(states[3]!, states[4]!)))).toBe(now);
});

test("a whole run that says the same leaves its objects as they are", () => {
  const [before, after] = statesOf(9, 1) as [RunState, RunState];
  const now = takenFirst(before);
  const next = taken(now, sent(after)).state;
  expect(next.record.method).toBe(before.record.method);
  expect(next.record.houseRules).toBe(before.record.houseRules);
});
