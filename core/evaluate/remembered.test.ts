import { expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { applyChange } from "../change";
import { randomStream } from "../montecarlo";
import { begunRun } from "../testing/build-record";
import { randomChange } from "../testing/random-change";
import { changeContext, evaluateRun, type Remembering, rememberedStages } from ".";

test("what is remembered of stages is what evaluating them again gives, after any sequence of changes", () => {
  let [asked, found] = [0, 0];
  const [memory, ofHands] = [rememberedStages(), rememberedStages()];
  const counting: Remembering = (record, basis, find) =>
    memory(record, basis, () => {
      found++;
      return find();
    });
  methods.forEach((method, seed) => {
    const random = randomStream(seed + 1);
    let ids = 0;
    const newId = () => `id ${++ids}`;
    let record = begunRun(method);
    for (let i = 0; i < 12; i++) {
      const now = new Date(Date.parse(record.startedAt) + 60_000 * (i + 1)).toISOString();
      const change = randomChange(record, { random, newId });
      const applied = applyChange(record, change, changeContext({ now, person: "bench 1", newId }));
      if (!applied.ok || !applied.value) continue;
      record = applied.value.record;
      asked += record.stages.length;
      expect(evaluateRun(record, undefined, counting)).toEqual(evaluateRun(record));
      // Another flask in hand, other rules, a run that was closed: each follows from something else.
      const [stage] = record.stages;
      const hand = { stageKey: stage?.key ?? "", trialId: stage?.trials.at(-1)?.id ?? "new" };
      expect(evaluateRun(record, hand, ofHands)).toEqual(evaluateRun(record, hand));
    }
  });
  // It saves something: stages that a change did not touch, nor one before them.
  expect(found).toBeLessThan(0.9 * asked);
});
